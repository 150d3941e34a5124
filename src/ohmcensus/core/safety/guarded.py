"""The one guarded run, to dry or warm a part whose lines are not read yet: it lifts and proves nothing."""

from __future__ import annotations

from ohmcensus.core.acts import ActId, go
from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement.passes import earth_line_of, insulation_lines_of
from ohmcensus.core.safety.admission import shut_acts
from ohmcensus.core.safety.needs import Need, cord_needs, is_of_cord, own_needs, part_title
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.symptom import Device
from ohmcensus.core.trip.house import circuit_on

GUARDED_EARTH_OHM, GUARDED_INSULATION_OHM, GUARDED_RCD_MA = 1.0, 20e6, 30


def refuse_guarded(case: Case, safety: Safety) -> None:
    """Refuse the one guarded run unless only the unread lines of a changed part stand in its way.

    Raises
    ------
    SafetyRefusalError
        Where it was made already, a danger stands, a cover is off, the cord was changed, the part is not read by any
        meter, or no RCD of 30 mA or GFCI is noted.
    """
    walk = safety.walk
    if walk.when("guarded") >= 0:
        what = "the guarded run was made already on this job"
        missing = _first_missing(walk)
        act = missing.act if missing is not None else go(ActId.MEASURE, "Measure", "trace")
        raise SafetyRefusalError(what=what, remedy="read the lines that are missing", field="guarded", acts=(act,))
    if safety.dangers:
        first = safety.dangers[0]
        what = f"no guarded run: {first.words}"
        raise SafetyRefusalError(what=what, remedy=f"next, {first.lifted_by}", field="guarded", acts=(first.act,))
    if not safety.is_shut:
        what = "no guarded run with a cover off"
        raise SafetyRefusalError(what=what, remedy="shut it first", field="guarded", acts=shut_acts(safety))
    _refuse_cord(walk)
    for part in walk.marks.changed:
        if not _is_read(part, walk):
            _raise_unread(part, walk)
    noted = walk.circuit or circuit_on(case.sheet)
    is_guard = noted.device is Device.GFCI or (
        noted.device in {Device.RCD, Device.RCBO} and noted.rated_ma <= GUARDED_RCD_MA
    )
    if walk.circuit is None or not is_guard or not noted.supply.is_neutral_earthed:
        what = "no guarded run: no RCD of 30 mA or GFCI on an earthed neutral is noted"
        acts = (go(ActId.SAY_GFCI, "Note the circuit", "trip", "circuit"),)
        raise SafetyRefusalError(what=what, remedy="note the circuit of the house in Trip", field="guarded", acts=acts)


def _first_missing(walk: Walk) -> Need | None:
    return next((need for part in walk.marks.changed for need in own_needs(part, walk)), None)


def _refuse_cord(walk: Walk) -> None:
    """Refuse it for what carries the earth itself: a cord, a plug, a terminal block."""
    of_cord = [part for part in walk.marks.changed if is_of_cord(part, walk.terms)]
    missing = [need for part in of_cord for need in own_needs(part, walk)]
    missing += [*cord_needs(walk.marks.ends, walk)] if walk.marks.ends else []
    if not missing and not of_cord:
        return
    first = missing[0] if missing else None
    what = "no guarded run after work on the cord: it carries the earth"
    remedy = f"next, {first.words}" if first is not None else "plug it in: its lines are read"
    acts = (first.act,) if first is not None else (go(ActId.PULL_PLUG, "To the plug, in Safe", "safe", "isolate"),)
    raise SafetyRefusalError(what=what, remedy=remedy, field="guarded", acts=acts)


def _raise_unread(part: str, walk: Walk) -> None:
    what = f"no guarded run: the {part_title(part, walk.terms)} is not read since it was changed"
    remedy = "measure its earth under 1 Ω and its tags to earth over 20 MΩ, by any meter"
    first = next(iter(own_needs(part, walk)), None)
    act = first.act if first is not None else go(ActId.MEASURE, "Measure", "trace")
    raise SafetyRefusalError(what=what, remedy=remedy, field="guarded", acts=(act,))


def _is_read(part: str, walk: Walk) -> bool:
    since, terms = walk.marks.own.get(part, 0), walk.terms
    found = terms.sheet.part(part)
    if found is None:
        return True
    earth = walk.latest(earth_line_of(part))
    has_earth = not found.is_earthed or (
        earth is not None and earth.order > since and earth.interval.hi < GUARDED_EARTH_OHM
    )
    rows = [walk.latest(line) for line in insulation_lines_of(part, terms)]
    late = [row for row in rows if row is not None and row.order > since]
    has_insulation = not rows or any(row.interval.lo > GUARDED_INSULATION_OHM for row in late)
    return has_earth and has_insulation
