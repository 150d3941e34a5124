"""How far the proof of a case is: what was shown since the last change, and whether it is good."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Changed,
    EarthLifted,
    EarthRefitted,
    Event,
    HeatRise,
    Opened,
    ProofMade,
    RunWatched,
    StripBack,
    StripStep,
    Way,
)
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.meter import Function
from ohmcensus.core.physics.heat import heat_up_bounds
from ohmcensus.core.proof.criteria import Criterion, ShownBy, criteria, is_insulation_barred, tub_heater_watts
from ohmcensus.core.quantity import Indication, Interval, Unit, parse_indication


@dataclass(frozen=True, slots=True)
class Proof:
    """One criterion and what was shown of it.

    Parameters
    ----------
    criterion
        What has to be shown.
    is_good
        None while nothing was shown since the last change.
    shows, interval
        What was read, with the tester's whole error; None where it was seen.
    at, event
        When; the record, None for a reading of the quick line.
    reading
        That reading, None for a record.
    warmed
        How the water warmed, and within how many minutes a sound heater does it.
    """

    criterion: Criterion
    is_good: bool | None = None
    shows: Indication | None = None
    interval: Interval | None = None
    at: str = ""
    event: ProofMade | None = None
    reading: Reading | None = None
    warmed: tuple[HeatRise, Interval] | None = None


OUTLET = "outlet"
# A reading further off the rated voltage than this is of a dead or a foreign outlet, and heats no water.
_SUPPLY = Interval(0.8, 1.2)
# State of a sheet whose heater hangs on a relay of the board.
RELAY = "heater_relay"
# What is a repair: proof is asked of a machine on which anything was changed or taken off.
_REPAIRS = (Changed, StripStep, EarthLifted)
_TAKES_AWAY = (Changed, Opened, EarthRefitted, StripStep, StripBack)


def is_asked(case: Case) -> bool:
    """Tell whether proof is asked: something was changed, came off, or had its earth lifted."""
    return any(isinstance(event.body, _REPAIRS) for event in case.events)


def since_change(case: Case) -> int:
    """Return the revision of the last change, or of whatever came off or went back last; nought where nothing did."""
    return max((event.order for event in case.events if isinstance(event.body, _TAKES_AWAY)), default=0)


def proofs(case: Case) -> tuple[Proof, ...]:
    """Return every criterion with what was shown since the last change.

    Notes
    -----
    Guarded acceptance: a limit is kept only by a reading whose whole interval keeps it.
    """
    since = since_change(case)
    return tuple(_proof(case, row, since) for row in criteria(case))


def refuse_proof(case: Case, body: ProofMade) -> None:
    """Refuse what is no criterion of this machine, is out of its order, or lacks what it is judged by.

    Raises
    ------
    InputError
        For an unknown criterion, a reading where something is seen, or the other way round; a current without its
        method, or by the alternative one where that proves nothing.
    SafetyRefusalError
        After a fail, which ends the series; and before an earlier criterion is shown, save that what is only seen
        may be said in any order.
    """
    rows = proofs(case)
    place = next((at for at, row in enumerate(rows) if row.criterion.id == body.criterion), None)
    if place is None:
        known = ", ".join(row.criterion.id for row in rows)
        raise InputError(what=f"no criterion '{body.criterion}' here", remedy=f"known are {known}", field="criterion")
    criterion = rows[place].criterion
    _refuse_form(case, criterion, body)
    for row in rows[:place]:
        is_both_seen = row.criterion.kind is criterion.kind is ShownBy.SEEN
        if row.is_good is False or (row.is_good is None and not is_both_seen):
            state = "failed" if row.is_good is False else "is not shown yet"
            remedy = "mend that first and show it again" if row.is_good is False else "show that first"
            what = f"{row.criterion.title.lower()} {state}: it comes before {criterion.title.lower()}"
            raise SafetyRefusalError(what=what, remedy=remedy, field="criterion")


def _refuse_form(case: Case, criterion: Criterion, body: ProofMade) -> None:
    if criterion.kind in {ShownBy.READING, ShownBy.RUN, ShownBy.HEAT}:
        remedy = "type it in the quick line" if criterion.kind is ShownBy.READING else "watch a run and note it"
        raise InputError(what=f"{criterion.title.lower()} is shown by what is logged", remedy=remedy, field="criterion")
    if criterion.kind is ShownBy.SEEN:
        if body.is_good is None:
            raise InputError(what="nothing is said of what was seen", remedy="say good or bad", field="is_good")
        return
    shown = parse_indication(body.text, Unit.AMPERE)
    if shown.value is None or shown.value < 0:
        raise InputError(what=f"'{body.text}' is no current", remedy="type it with its unit: 0.4 mA", field="text")
    if body.way is None:
        raise InputError(what="no method is named", remedy="say direct, differential or alternative", field="way")
    if body.way is Way.ALTERNATIVE and is_insulation_barred(case):
        what = "the alternative method needs insulation, which is not allowed here"
        raise InputError(what=what, remedy="measure it running, heat on", field="way")
    if body.way is Way.ALTERNATIVE and RELAY in case.sheet.states:
        what = "the alternative method does not reach what stands behind a relay"
        raise InputError(what=what, remedy="measure it running, direct or differential", field="way")


def _proof(case: Case, criterion: Criterion, since: int) -> Proof:
    if criterion.kind is ShownBy.READING:
        return _by_reading(case, criterion, since)
    runs = [event for event in case.events if isinstance(event.body, RunWatched) and event.order > since]
    if criterion.kind is ShownBy.RUN:
        return _by_run(criterion, runs)
    if criterion.kind is ShownBy.HEAT:
        return _by_heat(case, criterion, runs)
    made = [
        event
        for event in case.events
        if isinstance(event.body, ProofMade) and event.body.criterion == criterion.id and event.order > since
    ]
    return _by_record(criterion, made[-1]) if made else Proof(criterion)


def _by_reading(case: Case, criterion: Criterion, since: int) -> Proof:
    rows: list[Reading] = [row for row in case.standing if row.test == criterion.test and row.order > since]
    if not rows or criterion.window is None:
        return Proof(criterion)
    last = rows[-1]
    interval = last.meter.interval_of(last.indication, last.function)
    is_lesser = criterion.id == "insulation" and last.function is not Function.INSULATION
    is_good = criterion.window.interval.contains(interval) and not is_lesser
    return Proof(criterion, is_good, last.indication, interval, last.at, reading=last)


def _by_heat(case: Case, criterion: Criterion, runs: list[Event]) -> Proof:
    timed = [(event.at, event.body.heat) for event in runs if isinstance(event.body, RunWatched) and event.body.heat]
    if not timed:
        return Proof(criterion)
    at, rise = timed[-1]
    share = supply_share(case)
    watts = tub_heater_watts(case.sheet)
    least, most = heat_up_bounds(rise.litres, rise.from_celsius, rise.to_celsius, watts, volts_share=share)
    is_good = least <= rise.minutes <= most
    return Proof(criterion, is_good, at=at, warmed=(rise, Interval(least, most)))


def supply_share(case: Case) -> float:
    """Return the voltage of the outlet as it was read last, as a share of the rated one; one where it was not read."""
    outlets = {part.id for part in case.sheet.parts if part.kind == OUTLET}
    read = [
        row.indication.value
        for row in case.standing
        if row.test and row.test.partition(".")[0] in outlets and row.test.endswith(".ln") and row.indication.value
    ]
    share = read[-1] / case.sheet.volts if read else 1.0
    return share if _SUPPLY.lo <= share <= _SUPPLY.hi else 1.0


def _by_run(criterion: Criterion, runs: list[Event]) -> Proof:
    if not runs or not isinstance(runs[-1].body, RunWatched):
        return Proof(criterion)
    return Proof(criterion, runs[-1].body.outcome == THROUGH, at=runs[-1].at)


def _by_record(criterion: Criterion, event: Event) -> Proof:
    body = event.body
    assert isinstance(body, ProofMade)  # noqa: S101 - the caller sorted the others out
    if criterion.window is None or body.instrument is None:
        return Proof(criterion, bool(body.is_good), at=event.at, event=body)
    shows = parse_indication(body.text, Unit.AMPERE, over_range_texts=body.instrument.over_range_texts)
    interval = body.instrument.interval_of(shows, Function.LEAKAGE)
    is_good = interval.hi <= criterion.window.interval.hi
    return Proof(criterion, is_good, shows, interval, event.at, body)
