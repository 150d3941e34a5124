"""After a change: the new piece is read, all goes back in reverse, the whole is read once; then it may run."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.diagnosis.mending import asked_of_piece, is_left_out, is_own
from ohmcensus.core.event import Changed, Event, Intervention, RunWatched, Shut, StripBack, StripStep
from ohmcensus.core.event.record import Record
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import Stripped, open_panels, strip_down
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.power import power_needs
from ohmcensus.core.sheet import Sheet

# A piece that reads outside so often is bad itself.
TWICE = 2


class BackKind(StrEnum):
    """What a row of the way back asks: to read the new piece, to put something back, to read the machine."""

    READ = "read"
    REFIT = "refit"
    WHOLE = "whole"


@dataclass(frozen=True, slots=True)
class BackRow:
    """One row of the way back.

    Parameters
    ----------
    kind, part
        What is done, and with which part; empty where it is none.
    words, detail
        What it is, and more on it: what it reads, what held it.
    is_done
        Whether it is done.
    test
        What is read, empty where nothing is.
    do
        What is written when it is done, None where a figure is asked.
    is_bad, is_new
        Whether the piece that is there now reads outside too, twice; whether it is another than before.
    """

    kind: BackKind
    part: str
    words: str
    detail: str = ""
    is_done: bool = False
    test: str = ""
    do: Record | None = None
    is_bad: bool = False
    is_new: bool = False


def open_changes(case: Case) -> tuple[Event[Changed], ...]:
    """Return the changes after which no run was watched, of each part the last."""
    run = case.last(RunWatched)
    since = run.order if run is not None else -1
    last = {event.body.part: event for event in case.of(Changed) if event.order > since}
    return tuple(sorted(last.values(), key=lambda event: event.order))


def way_back(case: Case, safety: Safety, lines: Sequence[CensusLine]) -> tuple[BackRow, ...]:
    """Return the way back in its order; what is done stays in its place.

    Parameters
    ----------
    case, safety
        Everything observed, and where the machine stands.
    lines
        Its census lines, judged.
    """
    changes = open_changes(case)
    needed = [test for need in power_needs(safety) if (test := _named(need.typed, case)) is not None]
    off = open_panels(case)
    behind = {part.id: part.behind for part in case.sheet.parts}
    refits: list[BackRow] = []
    covers: list[BackRow] = []
    since = min((event.order for event in changes), default=-1)
    for row in reversed(strip_down(case)):
        if row.is_whole and not _is_of_now(row, since, case):
            continue
        (covers if row.step.panel else refits).append(_refit(row, case.sheet))
    told = {row.step.panel for row in strip_down(case)}
    covers += [_shut(panel, case.sheet) for panel in sorted(off - told)]
    pieces = [row for event in changes for row in _of_piece(event, case, lines)]
    read = {row.test for row in pieces}
    needed = [test for test in needed if test.id not in read]
    inside = [test for test in needed if test.behind in off]
    read_inside = (*inside, *_read_since(lines, changes, behind))
    return (
        *pieces,
        *refits,
        *(_asked(test, case.sheet, lines, since, needed) for test in dict.fromkeys(read_inside)),
        *covers,
        *(_asked(test, case.sheet, lines, since, needed) for test in needed if test not in inside),
    )


def pieces(case: Case, lines: Sequence[CensusLine]) -> tuple[BackRow, ...]:
    """Return what is read of every part that was changed, run or not."""
    last = {event.body.part: event for event in case.of(Changed)}
    return tuple(row for event in last.values() for row in _of_piece(event, case, lines))


def is_put_together(case: Case) -> bool:
    """Tell whether everything that came off is back."""
    return not open_panels(case) and all(row.is_whole for row in strip_down(case))


def next_back(rows: Sequence[BackRow]) -> BackRow | None:
    """Return what is next of the way back, None where all is done."""
    return next((row for row in rows if not row.is_done), None)


def back_words(step: StripStep, sheet: Sheet) -> str:
    """Say what goes back: "Heater back in", "Heater tags on", "Back panel on"."""
    if step.panel in sheet.panels:
        return f"{sheet.panels[step.panel].title} on"
    if step.part and (part := sheet.part(step.part)) is not None:
        return f"{part.title} back in"
    plugs = [sheet.plugs[plug].title for plug in step.plugs if plug in sheet.plugs]
    return f"{', '.join(plugs)} on" if plugs else f"Put back: {step.words}"


def _is_of_now(row: Stripped, since: float, case: Case) -> bool:
    """Tell whether a step that is back went back after the change that is under way."""
    back = max((event.order for event in case.of(StripBack) if event.body.step == row.event.id), default=-1)
    return 0 <= since < back


def _refit(row: Stripped, sheet: Sheet) -> BackRow:
    step = row.step
    held = " ".join(word for word in (f"{step.fasteners} ×" if step.fasteners else "", step.head, step.size) if word)
    detail = ", ".join(word for word in (held, step.kept) if word)
    body = StripBack(step=row.event.id, fasteners=step.fasteners, plugs=step.plugs)
    return BackRow(BackKind.REFIT, step.part, back_words(step, sheet), detail, is_done=row.is_whole, do=body)


def _shut(panel: str, sheet: Sheet) -> BackRow:
    title = sheet.panels[panel].title if panel in sheet.panels else panel
    return BackRow(BackKind.REFIT, "", f"{title} on", do=Shut(panel=panel))


def _of_piece(event: Event[Changed], case: Case, lines: Sequence[CensusLine]) -> Iterator[BackRow]:
    """Yield what is read of a part that was changed."""
    is_new = event.body.intervention is Intervention.REPLACED
    for line in asked_of_piece(case, lines, event):
        if line.test is not None and not is_left_out(line.test, case, event):
            yield _read(line, line.test, event.order, is_new=is_new)


def _read(line: CensusLine, test: MachineTest, since: float, *, is_new: bool) -> BackRow:
    answers = [row for row in line.answers if row.reading.order > since]
    outside = [row for row in answers if row.judgement.verdict.is_outside]
    is_done = bool(answers) and not answers[-1].judgement.verdict.is_outside
    words = f"{'New ' if is_new else ''}{test.part_title.lower() if is_new else test.part_title}, {test.title}"
    detail = line.reads if answers else f"should read {test.window.shown}"
    is_bad = not is_done and len(outside) >= TWICE
    return BackRow(BackKind.READ, test.part, words, detail, is_done=is_done, test=test.id, is_bad=is_bad, is_new=is_new)


def _read_since(
    lines: Sequence[CensusLine], changes: Sequence[Event[Changed]], behind: dict[str, str | None]
) -> Iterator[MachineTest]:
    """Yield the earths of changed parts behind a cover that were read since."""
    changed = {event.body.part: event.order for event in changes if behind.get(event.body.part)}
    for line in lines:
        test = line.test
        if test is None or test.part not in changed or test.function is not Function.CONTINUITY or line.answer is None:
            continue
        if line.answer.reading.order > changed[test.part] and not is_own(test, test.part):
            yield test


def _asked(
    test: MachineTest, sheet: Sheet, lines: Sequence[CensusLine], since: float, needed: Sequence[MachineTest]
) -> BackRow:
    line = next((row for row in lines if row.test is not None and row.test.id == test.id), None)
    is_read = line is not None and line.answer is not None and line.answer.reading.order > since
    is_done = test not in needed
    detail = line.reads if line is not None and is_read else f"should read {test.window.shown}"
    title = sheet.known_part(test.part).title
    return BackRow(BackKind.WHOLE, test.part, f"{title}, {test.title}", detail, is_done=is_done, test=test.id)


def _named(typed: str, case: Case) -> MachineTest | None:
    return named_test(typed.strip().replace(" ", "."), case.terms)
