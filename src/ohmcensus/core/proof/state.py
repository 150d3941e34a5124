"""How far the proof of a case is: what was shown since the last change, and whether it is good."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ohmcensus.core.acts import ActId, go
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import Event, HeatRise, ProofMade, RunWatched, Way, When
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.job.voided import Voided, voided_by
from ohmcensus.core.judgement.passes import EARTH_LINE, WHOLE_LINE, Pass
from ohmcensus.core.machine.asked import THROUGH
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.physics.heat import heat_up_bounds
from ohmcensus.core.proof.criteria import (
    EARTH,
    OWN_EARTH,
    Asked,
    Criterion,
    ShownBy,
    asked,
    criteria,
    every_criterion,
    is_insulation_barred,
    tub_heater_watts,
)
from ohmcensus.core.proof.stands import DRUM, POWERED
from ohmcensus.core.quantity import Indication, Interval, Unit, parse_indication, with_scale
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.safety import Safety, SafetyState, Walk
from ohmcensus.core.safety.admission import shut_acts
from ohmcensus.core.safety.evidence import Evidence
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.override import PROVE
from ohmcensus.core.safety.power import was_it_now
from ohmcensus.core.symptom import Device


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
    voided
        By what it counts no more though it was shown once.
    """

    criterion: Criterion
    is_good: bool | None = None
    shows: Indication | None = None
    interval: Interval | None = None
    at: str = ""
    event: ProofMade | None = None
    reading: Reading | None = None
    warmed: tuple[HeatRise, Interval] | None = None
    voided: Voided | None = None


# A reading further off the rated voltage than this is of a dead or a foreign outlet, and heats no water.
_SUPPLY = Interval(0.8, 1.2)


def is_asked(safety: Safety) -> bool:
    """Tell whether proof is asked of the machine, all of it or some."""
    return asked(safety) is not Asked.NOTHING


def since_change(safety: Safety) -> int:
    """Return the revision from which on what shows the whole machine counts; nought where nothing was touched."""
    return safety.walk.marks.whole


def proofs(case: Case, safety: Safety) -> tuple[Proof, ...]:
    """Return every criterion with what was shown since the record that voids it.

    Notes
    -----
    Guarded acceptance: a limit is kept only by a reading whose whole interval keeps it; loose and overridden readings
    count for nothing.
    """
    return tuple(_proof(case, row, safety) for row in criteria(case, safety))


def refuse_proof(case: Case, body: ProofMade, safety: Safety) -> None:
    """Refuse what is no criterion of this machine, is out of its order, or lacks what it is judged by.

    Raises
    ------
    InputError
        For an unknown criterion, a reading where something is seen, or the other way round; a current without its
        method, or by the alternative one where that proves nothing.
    SafetyRefusalError
        After a fail, which ends the series; before an earlier criterion is shown, save that what is only seen may be
        said in any order; and in a state of the machine that it is not made in.
    """
    rows = proofs(case, safety)
    place = next((at for at, row in enumerate(rows) if row.criterion.id == body.criterion), None)
    every = {row.id: row for row in every_criterion(case, safety)}
    if place is None and body.criterion not in every:
        known = ", ".join(every)
        raise InputError(what=f"no criterion '{body.criterion}' here", remedy=f"known are {known}", field="criterion")
    criterion = rows[place].criterion if place is not None else every[body.criterion]
    _refuse_form(case, criterion, body, safety)
    if body.was is When.BEFORE:
        return
    for row in rows[: place or 0]:
        is_both_seen = row.criterion.kind is criterion.kind is ShownBy.SEEN
        is_missing = row.is_good is None and not is_both_seen and not row.criterion.is_optional
        if row.is_good is False or is_missing:
            state = "failed" if row.is_good is False else "is not shown yet"
            remedy = "mend that first and show it again" if row.is_good is False else "show that first"
            what = f"{row.criterion.named} {state}: it comes before {criterion.named}"
            act = go(ActId.MEASURE, f"Show: {row.criterion.title}", "prove", row.criterion.id)
            raise SafetyRefusalError(what=what, remedy=remedy, field="criterion", acts=(act,))
    _refuse_state(criterion, body, safety)


def taken_proof(case: Case, body: ProofMade, safety: Safety, bag: Sequence[Meter]) -> ProofMade:
    """Return a proof with the tester of the bag that could have shown it; a bare figure is in mA.

    Parameters
    ----------
    case
        Sheet and everything observed.
    body
        As it was sent.
    safety
        Where the job stands now.
    bag
        Meters at hand, the preferred one first.

    Raises
    ------
    InputError
        If it is no criterion of the machine, lacks its method, or no tester in the bag could have shown it.
    SafetyRefusalError
        If it is out of its order, or the machine is not in the state that it needs.
    """
    body = body.model_copy(update={"text": with_scale(body.text, Function.LEAKAGE.scale)})
    refuse_proof(case, body, safety)
    if body.way is None:
        return body
    for meter in bag:
        shown = parse_indication(body.text, Unit.AMPERE, over_range_texts=meter.over_range_texts)
        if meter.can_show(shown, Function.LEAKAGE):
            return body.model_copy(update={"instrument": meter})
    what = f"no tester in the bag measures a current to earth and shows '{body.text}'"
    remedy = "type the unit, e.g. 0.4 mA; or put a tester into the bag in Setup"
    raise InputError(what=what, remedy=remedy, field="text")


def _refuse_state(criterion: Criterion, body: ProofMade, safety: Safety) -> None:
    """Refuse a proof in a state of the machine that it is not made in."""
    if criterion.id == DRUM and safety.state in POWERED:
        what = "the drum is turned by hand with the machine unplugged"
        raise SafetyRefusalError(what=what, remedy="unplug it and note that in Safe", field="safety", acts=(PULL,))
    if body.way is None:
        return
    if body.was is None and safety.isolated and body.way is not Way.ALTERNATIVE:
        raise was_it_now()
    if body.way is Way.ALTERNATIVE and safety.state is not SafetyState.DEAD:
        what = "the alternative method drives a voltage of its own: the machine is not proved dead"
        raise SafetyRefusalError(what=what, remedy="prove it dead in Safe", field="safety", acts=(PROVE,))
    if body.way is not Way.ALTERNATIVE and safety.state not in POWERED and body.was is not When.NOW:
        what = "a current is measured under power"
        remedy = "plug it in, panels shut, and note that in Safe"
        to_plug = go(ActId.PULL_PLUG, "To the plug, in Safe", "safe", "isolate")
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(to_plug,))
    if safety.state is SafetyState.UNDER_VOLTAGE and not safety.is_shut and body.way is not Way.ALTERNATIVE:
        what = "the machine is open and under voltage"
        remedy = "unplug it, shut it, and plug it in again"
        acts = (PULL, *shut_acts(safety))
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=acts)


def _refuse_form(case: Case, criterion: Criterion, body: ProofMade, safety: Safety) -> None:
    is_current = criterion.kind is ShownBy.GFCI and body.way is not None
    if criterion.kind in {ShownBy.READING, ShownBy.RUN, ShownBy.HEAT, ShownBy.GFCI} and not is_current:
        remedy = "type it in the quick line" if criterion.kind is ShownBy.READING else "watch a run and note it"
        raise InputError(what=f"{criterion.named} is shown by what is logged", remedy=remedy, field="criterion")
    if criterion.kind is ShownBy.SEEN:
        if body.is_good is None:
            raise InputError(what="nothing is said of what was seen", remedy="say good or bad", field="is_good")
        return
    shown = parse_indication(body.text, Unit.AMPERE)
    if shown.value is None or shown.value < 0:
        raise InputError(what=f"'{body.text}' is not a current", remedy="type it with its unit: 0.4 mA", field="text")
    if body.way is None:
        raise InputError(what="no method is named", remedy="say direct, differential or alternative", field="way")
    if body.way is Way.ALTERNATIVE and (what := _no_alternative(case, safety)):
        raise InputError(what=what, remedy="measure it running, direct or differential", field="way")


def _no_alternative(case: Case, safety: Safety) -> str:
    """Say why the alternative method shows nothing on a machine, empty where it does."""
    if is_insulation_barred(safety):
        return "the alternative method needs insulation, which is not allowed here"
    # What a board switches is off on a machine without power; a timer is turned by hand.
    if any(case.sheet.with_role(Role.BOARD)):
        return "the alternative method does not reach what stands behind a relay"
    return ""


def ways(case: Case, safety: Safety) -> tuple[Way, ...]:
    """Return the methods by which a current may be measured on a machine."""
    return tuple(way for way in Way if way is not Way.ALTERNATIVE or not _no_alternative(case, safety))


def _proof(case: Case, criterion: Criterion, safety: Safety) -> Proof:
    found = _shown(case, criterion, safety)
    if found.is_good is not None:
        return found
    since = counts_from(criterion, safety.walk)
    voided = _voided_otherwise(criterion, safety.walk, since)
    return replace(found, voided=voided or voided_by(case, _shown_at(criterion, safety.walk), since))


def counts_from(criterion: Criterion, walk: Walk) -> int:
    """Return the record from which on what shows a criterion counts.

    A look counts from the last cover, a run and its joints from the last change or plug, the insulation from the last
    plug that voids it, the earth also from a cover that carries one, a part's own earth from the last work on it.
    """
    marks, name = walk.marks, criterion.id
    if criterion.kind in {ShownBy.RUN, ShownBy.HEAT} or name == "joints":
        return marks.function
    if name == "visual":
        return marks.seen
    if name == EARTH:
        return marks.bond
    if name.startswith(OWN_EARTH):
        return marks.own.get(name.removeprefix(OWN_EARTH), 0)
    return marks.insulation if criterion.kind is ShownBy.READING else marks.whole


def _voided_otherwise(criterion: Criterion, walk: Walk, since: int) -> Voided | None:
    """Say by what something counts for nothing that was shown after all: a cover that was off, a contact closed."""
    if criterion.kind is ShownBy.READING:
        open_ones = [row for row in walk.goods(criterion.test) if row.order > since and not row.is_shut]
        return Voided("read with a cover off", open_ones[-1].at) if open_ones else None
    if criterion.kind in {ShownBy.RUN, ShownBy.GFCI} and walk.when("run with contact") > since:
        return Voided("a contact was closed that should be open, so that the run shows no function", "")
    return None


def _shown_at(criterion: Criterion, walk: Walk) -> int:
    """Return the order of the record that showed a criterion as good last; negative where none did."""
    match criterion.kind:
        case ShownBy.READING:
            good = walk.goods(criterion.test)
            return good[-1].order if good else -1
        case ShownBy.RUN:
            return walk.watched.order if walk.watched is not None and walk.watched.body.outcome == THROUGH else -1
        case ShownBy.SEEN | ShownBy.CURRENT:
            made = walk.made.get(criterion.id)
            return made.order if made is not None and _by_record(criterion, made).is_good else -1
    return -1


def _shown(case: Case, criterion: Criterion, safety: Safety) -> Proof:
    walk = safety.walk
    since = counts_from(criterion, walk)
    if criterion.kind is ShownBy.READING:
        return _by_reading(criterion, since, walk)
    if criterion.kind is ShownBy.RUN:
        return _by_run(criterion, walk.watched, since)
    if criterion.kind is ShownBy.HEAT:
        return _by_heat(case, criterion, since)
    made = walk.made.get(criterion.id)
    if made is not None and made.order > since:
        return _by_record(_measured(criterion, safety), made)
    if criterion.kind is ShownBy.GFCI and _is_held(walk):
        return _by_run(criterion, walk.watched, walk.marks.function)
    return Proof(criterion)


def _is_held(walk: Walk) -> bool:
    """Tell whether the run that counts was on a GFCI: as it was asked, else by the circuit of the house."""
    said = walk.watched.body.on_gfci if walk.watched is not None else None
    if said is not None:
        return said
    return walk.circuit is not None and walk.circuit.device is Device.GFCI


def _measured(criterion: Criterion, safety: Safety) -> Criterion:
    """Return a criterion with the limit of its current, where a GFCI stands for it and it was measured all the same."""
    if criterion.kind is not ShownBy.GFCI:
        return criterion
    terms = safety.walk.terms
    window = Window(Interval(-math.inf, terms.conductor_a), Unit.AMPERE, Source.COMMON, terms.basis)
    return replace(criterion, window=window)


def _by_reading(criterion: Criterion, since: int, walk: Walk) -> Proof:
    """Return the last reading of a line: good where it counts as evidence, failed where it surely breaks its limit."""
    row = walk.latest(criterion.test)
    if row is None or row.order <= since or (row.reading is None and not row.connected):
        return Proof(criterion)
    is_failed = row.result(walk.terms) is not Pass.GOOD and not row.is_kept_by_a_lesser(walk.terms)
    if is_failed and not _is_excused(row):
        shows = row.reading.indication if row.reading is not None else None
        return Proof(criterion, is_good=False, shows=shows, interval=row.interval, at=row.at, reading=row.reading)
    later = [each for each in walk.goods(criterion.test) if each.order > since]
    goods = [row for row in later if _counts(row, criterion, walk) and row.result(walk.terms) is Pass.GOOD]
    if not goods:
        return Proof(criterion)
    best = goods[-1]
    shows = best.reading.indication if best.reading is not None else None
    return Proof(criterion, True, shows, best.interval, best.at, reading=best.reading)


def _is_excused(row: Evidence) -> bool:
    """Tell whether a reading that is not good fails nothing: for a reason alone, a correction, or by a lesser meter."""
    return row.reading is not None and bool(row.reading.override or row.reading.supersedes or row.reading.refused)


def _counts(row: Evidence, criterion: Criterion, walk: Walk) -> bool:
    """Tell whether a good reading counts for signing: after a change the whole is read with every cover shut."""
    is_whole = criterion.test in {EARTH_LINE, WHOLE_LINE}
    return row.is_shut or not is_whole or not walk.marks.change


def _by_heat(case: Case, criterion: Criterion, since: int) -> Proof:
    timed = [(row.at, row.body.heat) for row in case.of(RunWatched) if row.order > since and row.body.heat]
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
    outlets = {part.id for part in case.sheet.with_role(Role.OUTLET)}
    read = [
        row.indication.value
        for row in case.standing
        if row.test and row.test.partition(".")[0] in outlets and row.test.endswith(".ln") and row.indication.value
    ]
    share = read[-1] / case.sheet.volts if read else 1.0
    return share if _SUPPLY.lo <= share <= _SUPPLY.hi else 1.0


def _by_run(criterion: Criterion, watched: Event[RunWatched] | None, since: int) -> Proof:
    if watched is None or watched.order <= since:
        return Proof(criterion)
    return Proof(criterion, watched.body.outcome == THROUGH, at=watched.at)


def _by_record(criterion: Criterion, event: Event[ProofMade]) -> Proof:
    body = event.body
    if criterion.window is None or body.instrument is None:
        return Proof(criterion, bool(body.is_good), at=event.at, event=body)
    shows = parse_indication(body.text, Unit.AMPERE, over_range_texts=body.instrument.over_range_texts)
    interval = body.instrument.interval_of(shows, Function.LEAKAGE)
    is_good = interval.hi <= criterion.window.interval.hi
    return Proof(criterion, is_good, shows, interval, event.at, body)
