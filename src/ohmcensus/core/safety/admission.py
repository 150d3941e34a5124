"""Which readings are admitted in which state, and as what."""

from __future__ import annotations

from dataclasses import dataclass

from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.event import CutOff, RunMade
from ohmcensus.core.event.record import SHORTEST_REASON, is_reason
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import line_of, named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import is_proof
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, PLUG_PE, nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety.after_reading import OF_THE_HOUSE, is_at_plug, is_live_test, shows_power
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.words import FUNCTION_WORDS, Act, DangerId, SafetyState

_POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})
_VOLTS = frozenset({Function.VOLTS_AC, Function.VOLTS_DC})
AT_PLUG = frozenset({PLUG_L, PLUG_N, PLUG_PE})
CORD_ENDS = "cord_ends"
_WAIT_FOR_ENDS = frozenset({"cord.across", "cord.n_pe", "cord.insulation"})


@dataclass(frozen=True, slots=True)
class Admission:
    """How a reading is admitted.

    Parameters
    ----------
    is_overridden
        Whether only its reason lets it through: it lifts and proves nothing.
    is_found
        Whether it shows power on a machine that was thought to have none: under voltage from then.
    """

    is_overridden: bool = False
    is_found: bool = False


def admitted(reading: Reading, safety: Safety) -> Admission:
    """Return how a reading is admitted now.

    Raises
    ------
    SafetyRefusalError
        If the state forbids it, or what is said of it cannot be: loose between two parts, plug in hand where it is not,
        nothing read on a machine without power.
    """
    terms = safety.walk.terms
    if reading.inhand:
        _refuse_in_hand(safety)
    if is_proof(reading.test) or reading.test in OF_THE_HOUSE:
        return Admission()
    _refuse_live_though_forbidden(safety)
    if reading.function.needs_dead_circuit:
        return _of_dead_circuit(reading, safety)
    return _of_others(reading, safety, terms)


def _of_dead_circuit(reading: Reading, safety: Safety) -> Admission:
    """Admit ohms, continuity, diode, capacitance, insulation: only where nothing can come from the mains."""
    words = FUNCTION_WORDS[reading.function]
    if safety.state in _POWERED:
        raise _under_voltage(safety, words)
    if reading.loose:
        _refuse_loose(reading)
        return Admission()
    if safety.state is SafetyState.DEAD:
        _refuse_one_pole(reading, safety)
        return Admission()
    if safety.cut is CutOff.PLUG_IN_HAND and not safety.walk.charged:
        if not is_plugs_test(reading, safety.walk.terms):
            what = f"plug in hand: no {words} reading inside the machine"
            remedy = "only the tests at the plug's pins; for all others prove it dead in Safe"
            raise SafetyRefusalError(what=what, remedy=remedy, field="safety")
        _refuse_unproved_plug(safety)
        return Admission()
    _refuse_override(reading, safety, words)
    return Admission(is_overridden=True)


def _of_others(reading: Reading, safety: Safety, terms: Terms) -> Admission:
    """Admit volts, amperes, hertz, leakage, temperatures and lengths."""
    is_powered = safety.state in _POWERED
    is_live = is_live_test(reading, terms)
    if shows_power(reading, terms) or is_live:
        if not is_powered:
            if not shows_power(reading, terms):
                what = f"{show_indication(reading.indication)} on a machine without power says nothing of it"
                remedy = "this test is made under power: plug it in first, panels shut, or enter live mode"
                raise SafetyRefusalError(what=what, remedy=remedy, field="safety")
            return Admission(is_found=True)
        _refuse_open_machine(safety)
        return Admission()
    test = named_test(reading.test, terms, reading.stated_celsius)
    makes_own = test is not None and test.function in _VOLTS and not is_at_plug(reading)
    if is_powered and makes_own:
        raise _under_voltage(safety, "such a")
    return Admission()


def admitted_leak_test(body: RunMade, safety: Safety) -> None:
    """Refuse a leak test that the state forbids.

    Raises
    ------
    SafetyRefusalError
        At 500 V unless the machine is proved dead; under power with covers off outside live mode.
    """
    _refuse_live_though_forbidden(safety)
    if body.function is Function.INSULATION:
        if safety.state in _POWERED:
            raise _under_voltage(safety, FUNCTION_WORDS[Function.INSULATION])
        if safety.state is not SafetyState.DEAD:
            what = "not proved dead: no leak test at 500 V yet"
            raise SafetyRefusalError(what=what, remedy="prove it dead in Safe", field="safety")
        if safety.cut is CutOff.SWITCHED_OFF and CORD_ENDS not in safety.walk.plugs_off:
            raise _one_pole()
        return
    if safety.state in _POWERED:
        _refuse_open_machine(safety)


def refuse_leak_test_now(function: Function, safety: Safety) -> None:
    """Refuse a leak test before it is made: under power it needs a machine that is under power."""
    if function is Function.LEAKAGE and safety.state not in _POWERED:
        what = "a leakage run needs power"
        remedy = "plug it in with the panels shut, or enter live mode in Safe with its reason"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def is_plugs_test(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading is made at the pins of the pulled plug and at bare metal, covers on."""
    earth, points = nets_of(terms.sheet).earth, set(reading.between)
    return bool(points & AT_PLUG) and points <= AT_PLUG | earth and reading.test != "cord.cores"


def _refuse_in_hand(safety: Safety) -> None:
    if safety.state is SafetyState.DEAD or safety.cut is CutOff.PLUG_IN_HAND:
        return
    what = "'inhand' is said of the pulled plug in your hand: the machine is not noted so"
    remedy = "note in Safe that the plug is in your hand, covers on; or prove it dead"
    raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def _refuse_unproved_plug(safety: Safety) -> None:
    """Refuse a test at the plug's pins with a cover off, or before no voltage was shown there by a proper meter."""
    if safety.walk.covers:
        what = "plug in hand is with the covers on: one is off"
        raise SafetyRefusalError(what=what, remedy="shut it and note that in Safe, or prove it dead", field="panel")
    if safety.walk.is_hand_charged:
        what = "a charge is left between the pins of the plug"
        raise SafetyRefusalError(what=what, remedy="wait, and read at most 10 V DC there", field="safety")
    if not safety.walk.is_hand_proved:
        what = "plug in hand: not shown yet that no voltage is between its pins"
        remedy = "show the meter a known source, then read dead ln at the pins by the same meter"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def _refuse_loose(reading: Reading) -> None:
    parts = {point.partition(".")[0] for point in reading.between}
    if len(parts) > 1 or not all("." in point for point in reading.between):
        what = "'loose' is said of one part in the hand: these two points are not of one part"
        raise SafetyRefusalError(what=what, remedy="name two points of the same part, or prove it dead", field="safety")


def _refuse_override(reading: Reading, safety: Safety, words: str) -> None:
    """Refuse to read a machine that is not proved dead, unless a reason is given and nothing speaks against it."""
    walk = safety.walk
    if walk.charged:
        what = f"a charge was found: no {words} reading before it is gone"
        remedy = "discharge it, and read at most 10 V there a minute later"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")
    if walk.is_over:
        what = f"voltage was found at a point of the proof: no {words} reading"
        raise SafetyRefusalError(what=what, remedy="only the whole series helps: prove it dead in Safe", field="safety")
    if walk.cut is None or walk.cut is CutOff.PLUG_IN_HAND:
        what = f"not proved dead, and not noted as cut off: no {words} reading"
        raise SafetyRefusalError(what=what, remedy="pull the plug, note it in Safe, and prove it dead", field="safety")
    if not is_reason(reading.override):
        what = f"not proved dead: no {words} reading yet"
        remedy = (
            "prove it dead in Safe, say 'loose' for a part in your hand, or override with a reason of "
            f"{SHORTEST_REASON} characters"
        )
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def _refuse_one_pole(reading: Reading, safety: Safety) -> None:
    """Refuse 500 V and the readings to the other pole while a switch alone keeps the mains off."""
    if safety.cut is not CutOff.SWITCHED_OFF or CORD_ENDS in safety.walk.plugs_off:
        return
    line = line_of(reading, safety.walk.terms)
    if reading.function is Function.INSULATION or line in _WAIT_FOR_ENDS:
        raise _one_pole()


def _one_pole() -> SafetyRefusalError:
    what = "only switched off: a switch may leave one pole joined to the mains"
    remedy = "take the cord off its terminals first, and note it in Repair"
    return SafetyRefusalError(what=what, remedy=remedy, field="safety")


def _refuse_open_machine(safety: Safety) -> None:
    """Refuse a reading on the open machine under voltage outside live mode."""
    if safety.state is SafetyState.LIVE or safety.is_shut:
        return
    what = "the machine is open and under voltage"
    remedy = "unplug it and shut it; work on the open machine needs live mode, with its reason"
    raise SafetyRefusalError(what=what, remedy=remedy, field="safety")


def _refuse_live_though_forbidden(safety: Safety) -> None:
    danger = safety.danger(DangerId.LIVE_THOUGH_FORBIDDEN)
    if danger is None or Act.READING not in danger.forbids:
        return
    what = f"{danger.words}: no other reading now"
    raise SafetyRefusalError(what=what, remedy=danger.lifted_by, field="danger")


def _under_voltage(safety: Safety, words: str) -> SafetyRefusalError:
    if safety.state is SafetyState.LIVE:
        what = f"live mode: no {words} reading on a machine under voltage"
        remedy = "unplug it, prove it dead and leave live mode first"
    else:
        what = f"UNDER VOLTAGE ({safety.walk.powered}): no {words} reading, and no reason helps"
        remedy = "treat it as live: unplug it, note that in Safe, and prove it dead"
    return SafetyRefusalError(what=what, remedy=remedy, field="safety")
