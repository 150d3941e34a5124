"""Reading a machine that is not proved dead, for a reason: what it takes, and when no reason helps."""

from __future__ import annotations

from ohmcensus.core.acts import Act, ActId, again, go
from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.event import CutOff
from ohmcensus.core.event.record import is_reason
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.machine.dead_tests import charges_by_point
from ohmcensus.core.meter import Function
from ohmcensus.core.safety.clock import UNATTENDED
from ohmcensus.core.safety.danger import title_of
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.series import is_dangerous
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.sheet import Sheet

PROVE = go(ActId.PROVE_DEAD, "Prove it dead", "safe", "series")
DISCHARGE = go(ActId.DISCHARGE, "Discharge it", "safe", "series")
BENCH = again(ActId.ON_THE_BENCH, "Part is on the bench", {"loose": True})
REASON = again(ActId.GIVE_REASON, "Log it with a reason", {"override": ""}, asks="override")
# What is said where a house that is dead has no source to show the meter.
NO_SOURCE = "a proving unit, or an outlet of another circuit, is a source where the house is dead"


def refuse_override(reading: Reading, walk: Walk, words: str) -> None:
    """Refuse to read a machine that is not proved dead, unless a reason is given and nothing speaks against it.

    Raises
    ------
    SafetyRefusalError
        With the ways on.
    """
    _refuse_charged(walk, words)
    if walk.is_over:
        what = f"voltage was found at a point of the proof: no {words} reading"
        remedy = f"only the whole series helps: prove it dead in Safe; {NO_SOURCE}"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE,))
    if walk.cut is None or walk.cut is CutOff.PLUG_IN_HAND:
        what = f"not proved dead, and not noted as cut off: no {words} reading"
        remedy = "pull the plug, note it in Safe, and prove it dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL, PROVE, BENCH))
    _refuse_insulation(reading, words)
    _refuse_unread_charge(walk)
    if not reading.override:
        raise _not_proved(reading, walk, words)
    _refuse_absence(reading, walk, words)
    if not is_reason(reading.override):
        what = f"not proved dead, and that is no reason: no {words} reading"
        remedy = "say in a few words what makes it safe"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE, BENCH, REASON))
    if reading.override.casefold() in walk.reasons:
        what = f"not proved dead, and that reason was given for another one: no {words} reading"
        remedy = "say what makes this one safe, or prove it dead in Safe"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE, BENCH, REASON))


def _not_proved(reading: Reading, walk: Walk, words: str) -> SafetyRefusalError:
    """Return the refusal of a reading without a reason; a reason is a way on where it would be taken."""
    acts: tuple[Act, ...] = (PROVE, BENCH, REASON)
    try:
        _refuse_absence(reading, walk, words)
    except SafetyRefusalError as error:
        acts = tuple(dict.fromkeys((PROVE, *error.acts)))
    what = f"not proved dead: no {words} reading yet"
    return SafetyRefusalError(what=what, remedy=f"prove it dead in Safe; {NO_SOURCE}", field="safety", acts=acts)


def _refuse_charged(walk: Walk, words: str) -> None:
    if walk.charged:
        what = f"a charge was found: no {words} reading before it is gone"
        remedy = "discharge it, and read at most 10 V there a minute later"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(DISCHARGE,))


def _refuse_insulation(reading: Reading, words: str) -> None:
    if reading.function is Function.INSULATION:
        what = f"not proved dead: no {words} reading, and no reason helps at 500 V"
        remedy = f"prove it dead in Safe; {NO_SOURCE}"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE, BENCH))


def _refuse_absence(reading: Reading, walk: Walk, words: str) -> None:
    """Refuse a reason from whoever did not cut it off, or was away since."""
    if reading.device != walk.cut_by:
        what = f"not proved dead, and another device cut it off: no {words} reading from here by a reason alone"
        remedy = "pull the plug, note it here, and prove it dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL, PROVE, BENCH))
    is_gap = walk.cut_seen is not None and walk.now - walk.cut_seen > UNATTENDED
    if walk.has_gap or is_gap:
        what = f"not proved dead, and nothing was written for ten minutes: no {words} reading by a reason alone"
        remedy = "look that the plug is still out, note it in Safe, and prove it dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL, PROVE, BENCH))


def _refuse_unread_charge(walk: Walk) -> None:
    """Refuse a reason where a charge that can hurt was not read since the last power."""
    missing = unread_charges(walk.terms.sheet, walk)
    if missing:
        names = ", ".join(title_of(point, walk.terms) for point in missing)
        what = f"not proved dead, and no reason helps: {names} was not read at most 10 V DC since the last power"
        raise SafetyRefusalError(
            what=what, remedy="wait, read it, or prove it dead in Safe", field="safety", acts=(DISCHARGE, BENCH)
        )


def unread_charges(sheet: Sheet, walk: Walk) -> tuple[str, ...]:
    """Return the points whose charge can hurt and that were not read as empty since the last power."""
    return tuple(
        point for point in charges_by_point(sheet) if is_dangerous(point, sheet) and point not in walk.discharged
    )
