"""The strip-down of a case, turned round into the reassembly: what is still off, and what is missing."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from itertools import chain

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Checked, Event, Opened, RunWatched, Shut, StripBack, StripStep
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.connector import unticked
from ohmcensus.core.job.work_time import LONGEST_SILENCE_MINUTES
from ohmcensus.core.machine.at_plug import is_made_at_plug


@dataclass(frozen=True, slots=True)
class Stripped:
    """One step and what is back of it.

    Parameters
    ----------
    event, step
        The record and what it says.
    is_back
        Whether anything was put back since.
    missing
        Fasteners that are not back, those left out for a reason not counted.
    plugs_off
        Plugs that are not back.
    """

    event: Event
    step: StripStep
    is_back: bool
    missing: int
    plugs_off: tuple[str, ...]

    @property
    def is_whole(self) -> bool:
        """Whether it is back with every fastener and plug."""
        return self.is_back and not self.missing and not self.plugs_off


def strip_down(case: Case) -> tuple[Stripped, ...]:
    """Return what came off, in order; reversed it is the reassembly."""
    back = {row.body.step: row.body for row in case.of(StripBack) if isinstance(row.body, StripBack)}
    return tuple(
        _stripped(row, row.body, back.get(row.id)) for row in case.of(StripStep) if isinstance(row.body, StripStep)
    )


def unfinished(case: Case) -> tuple[str, ...]:
    """Return what is not back, a sentence each, in the order in which it goes back; connectors last."""
    return (*(_missing(row, case) for row in reversed(strip_down(case)) if not row.is_whole), *unticked(case))


def minutes_until(case: Case, moment: datetime) -> float | None:
    """Return the minutes from the last thing that was written down to a moment, None where that tells nothing."""
    written = [row.at for row in case.readings if row.at] + [row.at for row in case.events if row.at]
    if not written:
        return None
    minutes = (moment - datetime.fromisoformat(max(written))).total_seconds() / 60
    return minutes if 0 <= minutes <= LONGEST_SILENCE_MINUTES else None


def open_panels(case: Case, *, strip_only: bool = False) -> frozenset[str]:
    """Return the covers that are off: noted as opened or taken off in a step, and not put back since.

    Parameters
    ----------
    case
        Sheet and everything observed.
    strip_only
        Whether only those of the strip-down are wanted.
    """
    off: set[str] = set()
    panel_of: dict[str, str] = {}
    for event in case.of(Opened, Shut, StripStep, StripBack):
        match event.body:
            case Opened(panel=panel) if not strip_only:
                off.add(panel)
            case Shut(panel=panel):
                off.discard(panel)
            case StripStep(panel=panel) if panel:
                panel_of[event.id] = panel
                off.add(panel)
            case StripBack(step=step):
                off.discard(panel_of.get(step, ""))
    return frozenset(off)


def uncovered(case: Case) -> frozenset[str]:
    """Return the covers that are off for whoever asks on: noted as off, or something behind them was read or looked at.

    Notes
    -----
    What safety says of covers is what was noted. This is what work costs: nobody takes off a cover twice for two
    readings. A cover that was noted as put back, or a run through with panels shut, covers again. What is read at the
    plug takes none off.
    """
    shut_at: dict[str, float] = {}
    everywhere = -1.0
    for event in case.of(Shut, StripBack, RunWatched):
        match event.body:
            case Shut(panel=panel):
                shut_at[panel] = event.order
            case RunWatched(guarded=False) | StripBack():
                everywhere = event.order
    behind = {part.id: part.behind for part in case.sheet.parts if part.behind}
    checks = ((event.body.check.partition(".")[0], event.order) for event in case.of(Checked))
    inside = (row for row in case.standing if row.test and not is_made_at_plug(row.between))
    reached = chain(((str(row.test).partition(".")[0], row.order) for row in inside), checks)
    found = {
        behind[part]
        for part, order in reached
        if part in behind and order > max(everywhere, shut_at.get(behind[part], -1.0))
    }
    return open_panels(case) | found


def refuse_strip(case: Case, body: StripStep | StripBack) -> None:
    """Refuse what cannot be.

    Raises
    ------
    InputError
        For fasteners or plugs that did not come off, or a step that is not there.
    """
    if isinstance(body, StripStep):
        return
    rows = strip_down(case)
    place = next((at for at, row in enumerate(rows) if row.event.id == body.step), None)
    if place is None:
        raise InputError(what="no such step came off on this job", remedy="note it as off first", field="step")
    step = rows[place].step
    if body.fasteners > step.fasteners:
        what = f"{body.fasteners} back of {step.fasteners} that came off"
        raise InputError(what=what, remedy="count again: one may belong elsewhere", field="fasteners")
    strange = [plug for plug in body.plugs if plug not in step.plugs]
    if strange:
        what = f"'{strange[0]}' was not pulled in this step"
        raise InputError(what=what, remedy="tick it where it was pulled", field="plugs")


def beneath(case: Case, panel: str, over: frozenset[str] = frozenset()) -> tuple[str, ...]:
    """Return what is still off beneath a cover, in words, the last that came off first: it goes back before the cover.

    A step that names neither part nor plug lies beneath the covers that were off when it was written. What is off of
    the parts in ``over`` may stay so: their wires are insulated and tied away.
    """
    covers: list[str] = []
    found: list[str] = []
    for row in strip_down(case):
        if row.is_back:
            continue
        if row.step.panel:
            covers.append(row.step.panel)
            continue
        named = _named_parts(case, row.step)
        behind = _behind(case, row.step)
        if named and named <= over:
            continue
        if panel in behind or (not behind and covers[-1:] == [panel]):
            found.append(row.step.words)
    return tuple(reversed(found))


def _named_parts(case: Case, step: StripStep) -> frozenset[str]:
    return frozenset([step.part] if step.part else [part for plug in step.plugs for part in _parts_of(case, plug)])


def _behind(case: Case, step: StripStep) -> frozenset[str]:
    """Return the covers that a step is known to lie behind."""
    named = _named_parts(case, step)
    parts = {row.id: row.behind for row in case.sheet.parts}
    return frozenset(behind for name in named if (behind := parts.get(name)))


def _parts_of(case: Case, plug: str) -> tuple[str, ...]:
    known = case.sheet.plugs.get(plug)
    return known.parts if known else ()


def _stripped(event: Event, step: StripStep, back: StripBack | None) -> Stripped:
    if back is None:
        return Stripped(event, step, is_back=False, missing=step.fasteners, plugs_off=step.plugs)
    off = tuple(plug for plug in step.plugs if plug not in back.plugs)
    missing = 0 if back.because else step.fasteners - back.fasteners
    return Stripped(event, step, is_back=True, missing=missing, plugs_off=off)


def _missing(row: Stripped, case: Case) -> str:
    if not row.is_back:
        return f"not back: {row.step.words}"
    said = [f"{row.missing} fastener{'s' if row.missing > 1 else ''} missing"] if row.missing else []
    plugs = [case.sheet.plugs[plug].title.lower() for plug in row.plugs_off if plug in case.sheet.plugs]
    if plugs:
        said.append(f"still off: {', '.join(plugs)}")
    return f"{row.step.words}: {'; '.join(said)}"


def held_words(row: Stripped) -> str:
    """Say what held a step: "4 x cross M5, in the blue lid"."""
    step = row.step
    held = " ".join(word for word in (f"{step.fasteners} ×" if step.fasteners else "", step.head, step.size) if word)
    return ", ".join(word for word in (held, step.kept) if word)
