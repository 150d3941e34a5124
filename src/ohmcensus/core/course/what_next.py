"""The one thing to do next, safety, the way back and the proof included: what every room prints, and no other."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from ohmcensus.core.course.after_change import NEW_PIECE
from ohmcensus.core.course.following import Next, NextKind
from ohmcensus.core.course.making_safe import is_admitted_at, to_dead
from ohmcensus.core.course.way_back import (
    BackKind,
    BackRow,
    is_put_together,
    next_back,
    open_changes,
    pieces,
    way_back,
)
from ohmcensus.core.diagnosis.mending import mending
from ohmcensus.core.event import Changed, CodesRead, Ended, Isolated, LiveEnded, PluggedIn, ProofMade, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.first_look import is_begun
from ohmcensus.core.job.strip_plan import strip_plan
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.judgement.census_sheet import next_line
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.asked import RUN, THROUGH, asked_words
from ohmcensus.core.proof import Proof, blocking, proofs
from ohmcensus.core.proof.criteria import ShownBy
from ohmcensus.core.proof.sentences import done_words
from ohmcensus.core.proof.stands import Stand, needed, stands
from ohmcensus.core.safety import Danger, Safety, SafetyState
from ohmcensus.core.safety.power import power_bars

MENDED = "It was worked on: measure it before power."
BEFORE_POWER = "Needed before power."
POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})


def what_next(case: Case, safety: Safety, lines: Sequence[CensusLine], act: Next | None = None) -> Next:
    """Return the one thing to do next.

    Parameters
    ----------
    case
        Sheet and everything observed.
    safety
        Where the machine stands now.
    lines
        Its census lines, judged.
    act
        What the search wants next, None where that is not known or nothing is.
    """
    return next(_wanted(_Stand(case, safety, lines), act))


class _Stand:
    """Where a job stands: what every question of the next thing asks."""

    def __init__(self, case: Case, safety: Safety, lines: Sequence[CensusLine]) -> None:
        self.case, self.safety, self.lines = case, safety, tuple(lines)
        self.back = way_back(case, safety, lines)
        self.tests = {test.id: test for test in machine_tests(case.sheet, None)}

    @property
    def forbidding(self) -> list[Danger]:
        return [row for row in self.safety.dangers if row.forbids_power]


def _wanted(job: _Stand, act: Next | None) -> Iterator[Next]:
    """Yield what is to be done, the most urgent first."""
    yield from _urgent(job, act)
    yield from _begin(job)
    yield from _changed(job, act)
    if act is not None and act.kind is NextKind.REPAIR and not _was_changed_since(job.case, act.part):
        yield _repair(job, act)
    if job.case.of(Changed) and not _fails_yet(job.case):
        yield from _to_the_end(job)
    unread = _unread(job)
    if unread is not None and (act is None or act.kind is not NextKind.LEAK_TEST):
        yield _of_back(job, unread)
    if act is not None:
        yield _searched(job, act)
    yield from _left(job)


def _urgent(job: _Stand, act: Next | None) -> Iterator[Next]:
    """Yield what leaves nothing else: a job that has ended, a voltage where none should be, work under voltage."""
    case, safety, end = job.case, job.safety, job.case.ended
    if end is not None:
        yield Next(NextKind.END, "", f"Ended: {end.body.why}", stage="sheet-out")
    if not case.complaint.symptoms and _is_new(case):
        yield _COMPLAINT
    if safety.shout:
        yield replace(to_dead(case, safety), words=f"Hands off: {safety.shout}")
    if safety.state is SafetyState.LIVE:
        is_live = act is not None and _wants_power(job, act)
        do = None if is_live else LiveEnded()
        yield Next(NextKind.SAFE, "", f"Live: {safety.reason}", stage="trace", do=do)


_COMPLAINT = Next(NextKind.LOOK, "", "Take the complaint: what does it do?", stage="intake")


def _begin(job: _Stand) -> Iterator[Next]:
    """Yield how a job begins: outside of the machine, then its codes. Where somebody measures, that is over."""
    case = job.case
    if _is_new(case) and not is_begun(case):
        words = "Look outside the machine first: outlet, cord, filter, door"
        yield Next(NextKind.TEST, "outlet", words, test="outlet.ln", stage="intake")
    if _can_tell_codes(case) and not case.of(CodesRead) and not job.forbidding and not _was_touched(case):
        words = "Read the stored codes before anything is unplugged or tested"
        yield Next(NextKind.LOOK, "", words, test="codes", stage="codes")


def _changed(job: _Stand, act: Next | None) -> Iterator[Next]:
    """Yield what a change wants before the machine runs: the way back, the leak test of an isolation, the run."""
    if not open_changes(job.case):
        return
    row = next_back(job.back)
    if row is not None:
        is_isolating = act is not None and act.kind is NextKind.LEAK_TEST
        if act is not None and is_isolating and row.kind is BackKind.WHOLE and is_put_together(job.case):
            yield _searched(job, act)
        yield _of_back(job, row)
    if act is not None and act.kind is NextKind.LEAK_TEST:
        yield _searched(job, act)
    yield from _to_the_end(job)


def _unread(job: _Stand) -> BackRow | None:
    """Return a reading without which there is no power and that nobody made since the danger was found."""
    since = min((row.since for row in job.forbidding), default=-1)
    read = {
        line.test.id
        for line in job.lines
        if line.test is not None and any(row.reading.order >= since for row in line.every)
    }
    rows = (row for row in job.back if row.kind is BackKind.WHOLE and not row.is_done and row.test not in read)
    return next(rows, None) if since >= 0 else None


def _of_back(job: _Stand, row: BackRow) -> Next:
    """Return a row of the way back as what is next."""
    if row.is_bad:
        words = f"{row.words}: {row.detail}. It reads outside too: fit another"
        return Next(NextKind.REPAIR, row.part, words, do=_change(job, row.part))
    if row.do is not None:
        return Next(NextKind.WAY_BACK, row.part, row.words, do=row.do)
    why = BEFORE_POWER if row.kind is BackKind.WHOLE else NEW_PIECE if row.is_new else MENDED
    return _measured(job, row.test, f"Measure: {asked_words(row.test, job.case.sheet)}", row.part, why)


def _measured(job: _Stand, name: str, words: str, part: str, why: str) -> Next:
    """Return a reading as what is next; where the machine does not stand so that it is made, the way there."""
    test = job.tests.get(name)
    if test is not None and test.function.needs_dead_circuit and not is_admitted_at(test, job.safety):
        return replace(to_dead(job.case, job.safety, words, name), why=why)
    stage = "intake" if part == "outlet" else ""
    return Next(NextKind.TEST, part, words, test=name, stage=stage, why=why)


def _repair(job: _Stand, act: Next) -> Next:
    """Return a repair: what comes off next on the way to the part, else the change itself."""
    told = mending(job.case, job.lines, act.part)
    act = replace(act, words=f"{job.case.sheet.known_part(act.part).title}: {told.repair}")
    if not job.safety.isolated:
        return to_dead(job.case, job.safety, act.words)
    plan = strip_plan(job.case, job.case.sheet.known_part(act.part))
    off = next((row.proposal for row in plan if not row.is_off), None)
    return replace(act, do=off or _change(job, act.part))


def _change(job: _Stand, part: str) -> Changed:
    return Changed(part=part, intervention=mending(job.case, job.lines, part).fits[0])


def _searched(job: _Stand, act: Next) -> Next:
    """Return what the search wants; where the machine does not stand so that it is done, the way there."""
    if act.kind is NextKind.SERVICE:
        return act
    if _wants_power(job, act):
        return _under_power(job, act) or act
    if act.kind is NextKind.REPAIR:
        return _repair(job, act)
    if act.kind is NextKind.TEST:
        test = job.tests.get(act.test)
        is_ready = test is None or is_admitted_at(test, job.safety)
    else:
        is_ready = job.safety.state is SafetyState.DEAD
    return act if is_ready else to_dead(job.case, job.safety, act.words, act.test)


def _under_power(job: _Stand, act: Next | None = None) -> Next | None:
    """Return what comes before power: what is missing, what is off, the plug; None where it stands under power.

    The outlet is read without it.
    """
    if act is not None and act.part == "outlet" and act.kind is NextKind.TEST:
        return None
    row = next_back(job.back)
    if row is not None:
        return _of_back(job, row)
    bar = next(power_bars(job.safety), None)
    if bar is not None:
        danger = next((row for row in job.forbidding if row.act == bar.act), None)
        look = danger.look if danger else ""
        return Next(NextKind.SAFE, "", f"No power yet: {bar.do}", test=look, stage=bar.act.room)
    if job.safety.state in POWERED:
        return None
    words = "Plug it in, panels shut" + (f", then {act.words[:1].lower()}{act.words[1:]}" if act else "")
    return Next(NextKind.SAFE, "", words, do=PluggedIn(), before=act.test if act else "")


def _to_the_end(job: _Stand) -> Iterator[Next]:
    """Yield what the machine still has to show, in order, and the signature."""
    case, safety = job.case, job.safety
    for row in proofs(case, safety):
        if row.is_good is False or (row.is_good is None and not row.criterion.is_optional):
            yield _shown(job, row)
    left = next_back(job.back)
    if left is not None:
        yield _of_back(job, left)
    unread = next_back(pieces(case, job.lines))
    if unread is not None and not unread.is_bad:
        yield _of_back(job, unread)
    blocks = blocking(case, safety)
    if blocks:
        yield Next(NextKind.PROVE, "", f"Before it is signed: {blocks[0]}")
    why = done_words(case) or "Nothing was changed."
    yield Next(NextKind.END, "", "Sign it off: everything is shown", do=Ended(why=why))


def _shown(job: _Stand, row: Proof) -> Next:
    """Return one line of the proof as what is next, or how the machine has to stand for it."""
    criterion = row.criterion
    title = f"{criterion.title[:1].lower()}{criterion.title[1:]}" if criterion.title[:2].istitle() else criterion.title
    if row.is_good is False:
        return Next(NextKind.PROVE, "", f"Mend it, then show it again: {title}", test=criterion.test or criterion.id)
    words = f"Prove it: {title}"
    stand = needed(criterion)
    if stand is Stand.POWERED and (before := _under_power(job)):
        return before
    if not stands(stand, job.safety):
        unplug = Next(NextKind.SAFE, "", f"Unplug it, then {title}", do=Isolated())
        return unplug if stand is Stand.CUT_OFF else to_dead(job.case, job.safety, title)
    if criterion.kind in {ShownBy.RUN, ShownBy.GFCI}:
        return Next(NextKind.RUN, "", words, test=RUN, stage="prove")
    do = ProofMade(criterion=criterion.id, is_good=True) if criterion.kind is ShownBy.SEEN else None
    return Next(NextKind.PROVE, criterion.test.partition(".")[0], words, test=criterion.test or criterion.id, do=do)


def _left(job: _Stand) -> Iterator[Next]:
    """Yield what is left where the search wants nothing: lines that were not asked, the proof, the end."""
    if job.safety.state is not SafetyState.DEAD:
        yield to_dead(job.case, job.safety)
    line = next_line(job.lines, None)
    if line is not None and line.test is not None:
        yield Next(NextKind.TEST, line.test.part, "Measure the next line of the sheet", test=line.test.id)
    yield from _to_the_end(job)


def _wants_power(job: _Stand, act: Next) -> bool:
    """Tell whether what is next is done with the machine plugged in."""
    if act.kind is NextKind.RUN:
        return True
    test = job.tests.get(act.test)
    return act.kind is NextKind.TEST and test is not None and not test.function.needs_dead_circuit


def _was_changed_since(case: Case, part: str) -> bool:
    """Tell whether a part was changed and nothing failed after that."""
    changed = max((event.order for event in case.of(Changed) if event.body.part == part), default=-1)
    failed = max((run.order for run in case.of(RunWatched) if run.body.outcome != THROUGH), default=-1)
    return changed > failed


def _fails_yet(case: Case) -> bool:
    """Tell whether the last run that was watched failed after the last change."""
    run, change = case.last(RunWatched), case.last(Changed)
    return run is not None and change is not None and run.order > change.order and run.body.outcome != THROUGH


def _was_touched(case: Case) -> bool:
    return bool(case.of(Isolated))


def _is_new(case: Case) -> bool:
    """Tell whether nobody measured anything, nor watched it run."""
    return not case.standing and not case.of(RunWatched)


def _can_tell_codes(case: Case) -> bool:
    return bool(case.sheet.service.schemes)
