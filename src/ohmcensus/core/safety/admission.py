"""Which readings are admitted in which state, and as what."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.acts import Act, ActId, again, go, send
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import CutOff, RunMade, When
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import EARTH_LINE, named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import is_proof
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, PLUG_PE, nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety.lifted_by import PULL
from ohmcensus.core.safety.override import BENCH, DISCHARGE, PROVE, refuse_override
from ohmcensus.core.safety.powered import OF_THE_HOUSE, is_at_plug, is_live_test, shows_power
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.safety.whole import is_at_supply, waits_for_ends
from ohmcensus.core.safety.words import FUNCTION_WORDS, DangerId, Forbidden, SafetyState
from ohmcensus.core.sheet import Sheet

_POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})
_VOLTS = frozenset({Function.VOLTS_AC, Function.VOLTS_DC})
AT_PLUG = frozenset({PLUG_L, PLUG_N, PLUG_PE})
IN_HAND = send(ActId.PLUG_IN_HAND, "Plug is in my hand", {"kind": "isolated", "how": "plug_in_hand"})
BEFORE = again(ActId.WAS_BEFORE, "It was before the plug was pulled", {"was": "before"})
NOW = again(ActId.WAS_NOW, "It is now, under power", {"was": "now"})
FOUND_LIVE = send(ActId.FOUND_LIVE, "It stands under voltage all the same", {"kind": "found_powered"}, is_again=False)
LIVE_MODE = go(ActId.PROVE_DEAD, "Live mode, in Safe", "safe", "live")


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
    _refuse_past(reading, terms)
    if reading.was == When.BEFORE:
        return Admission()
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
        _refuse_joined(reading, safety)
        return Admission()
    if safety.cut is CutOff.PLUG_IN_HAND and not safety.walk.charged:
        if not is_plugs_test(reading, safety.walk.terms):
            what = f"plug in hand: no {words} reading inside the machine"
            remedy = "only the tests at the plug's pins; for all others prove it dead in Safe"
            raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE, BENCH))
        _refuse_unproved_plug(safety)
        return Admission()
    try:
        refuse_override(reading, safety.walk, words)
    except SafetyRefusalError as error:
        raise _with_plug(error, reading, safety) from None
    _refuse_joined(reading, safety)
    return Admission(is_overridden=True)


def _with_plug(error: SafetyRefusalError, reading: Reading, safety: Safety) -> SafetyRefusalError:
    """Return a refusal with one way more, where the reading is made at the pins of the pulled plug."""
    if not is_plugs_test(reading, safety.walk.terms) or safety.walk.charged or safety.walk.covers:
        return error
    acts = (*error.acts[:1], IN_HAND, *error.acts[1:])
    return SafetyRefusalError(what=error.what, remedy=error.remedy, field=error.field, acts=acts)


def _of_others(reading: Reading, safety: Safety, terms: Terms) -> Admission:
    """Admit volts, amperes, hertz, leakage, temperatures and lengths."""
    is_powered = safety.state in _POWERED
    is_live = is_live_test(reading, terms)
    if shows_power(reading, terms) or is_live:
        if not is_powered and reading.was != When.NOW:
            if not shows_power(reading, terms):
                what = f"{show_indication(reading.indication)} on a machine without power says nothing of it"
                remedy = "this test is made under power: plug it in first, panels shut, or enter live mode"
                acts = (go(ActId.PULL_PLUG, "To the plug, in Safe", "safe", "isolate"), BEFORE)
                raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=acts)
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
            raise SafetyRefusalError(what=what, remedy="prove it dead in Safe", field="safety", acts=(PROVE,))
        if waits_for_ends(safety.walk):
            raise _joined(safety)
        return
    if safety.state in _POWERED:
        _refuse_open_machine(safety)


def refuse_leak_test_now(function: Function, safety: Safety) -> None:
    """Refuse a leak test before it is made: under power it needs a machine that is under power."""
    if function is Function.LEAKAGE and safety.state not in _POWERED:
        what = "a leakage run needs power"
        remedy = "plug it in with the panels shut, or enter live mode in Safe with its reason"
        acts = (go(ActId.PULL_PLUG, "To the plug, in Safe", "safe", "isolate"),)
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=acts)


def is_plugs_test(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading is made at the pins of the pulled plug and at bare metal, covers on."""
    points = set(reading.between)
    is_bare = points <= AT_PLUG | touchable_earth(terms.sheet) or reading.test == EARTH_LINE
    return bool(points & AT_PLUG) and is_bare and reading.test != "cord.cores"


@lru_cache(maxsize=64)
def touchable_earth(sheet: Sheet) -> frozenset[str]:
    """Return the points of the earth that one touches with the covers on: none of a part that a cover hides."""
    hidden = {part.id for part in sheet.parts if part.behind is not None}
    return frozenset(point for point in nets_of(sheet).earth if point.partition(".")[0] not in hidden)


def _refuse_past(reading: Reading, terms: Terms) -> None:
    """Refuse to say *now* or *before* of what no powered machine gives."""
    if reading.was and not shows_power(reading, terms) and not is_live_test(reading, terms):
        what = "now or before is said of what only a powered machine gives"
        raise InputError(what=what, remedy="leave it out for this line", field="was")


def _refuse_in_hand(safety: Safety) -> None:
    if safety.state is SafetyState.DEAD or safety.cut is CutOff.PLUG_IN_HAND:
        return
    what = "the machine is not noted with its pulled plug in the hand"
    remedy = "note in Safe that the plug is in your hand, covers on; or prove it dead"
    raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(IN_HAND, PROVE))


def _refuse_unproved_plug(safety: Safety) -> None:
    """Refuse a test at the plug's pins with a cover off, or before no voltage was shown there by a proper meter."""
    if safety.walk.covers:
        what = "plug in hand is with the covers on: one is off"
        remedy = "shut it and note that in Safe, or prove it dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="panel", acts=(*shut_acts(safety), PROVE))
    if safety.walk.is_hand_charged:
        what = "a charge is left between the pins of the plug"
        remedy = "wait, and read at most 10 V DC there"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(DISCHARGE,))
    if not safety.walk.is_hand_proved:
        what = "plug in hand: not shown yet that no voltage is between its pins"
        remedy = "show the meter a known source, then read line to neutral at the plug's pins by the same meter"
        acts = (go(ActId.PROVE_DEAD, "Show that it is dead at the pins", "safe", "series"),)
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=acts)


def shut_acts(safety: Safety) -> tuple[Act, ...]:
    """Return for each cover that is off the act that says it is on."""
    panels = safety.walk.terms.sheet.panels
    return tuple(
        send(
            ActId.SHUT_COVER,
            f"{panels[name].title if name in panels else name} is on",
            {"kind": "shut", "panel": name},
        )
        for name in sorted(safety.walk.covers)
    )


def _refuse_loose(reading: Reading) -> None:
    parts = {point.partition(".")[0] for point in reading.between}
    if len(parts) > 1 or not all("." in point for point in reading.between):
        what = "on the bench lies one part: these two points are not of one part"
        remedy = "name two points of the same part, or prove it dead"
        raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PROVE,))


def _refuse_joined(reading: Reading, safety: Safety) -> None:
    """Refuse 500 V and ohms at the supply while a pole of the mains may be joined to it, however it was proved."""
    if not waits_for_ends(safety.walk):
        return
    if reading.function is Function.INSULATION or is_at_supply(reading, safety.walk.terms):
        raise _joined(safety)


def _joined(safety: Safety) -> SafetyRefusalError:
    is_switch = safety.cut is CutOff.SWITCHED_OFF
    what = "only switched off: a switch may leave one pole joined to the mains"
    if not is_switch:
        what = "a fixed cord: what it hangs on is not seen"
    remedy = "take the cord off its terminals first, and note it in Repair"
    acts = (go(ActId.REFIT, "Note the cord's ends off", "repair", "strip"),)
    return SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=acts)


def _refuse_open_machine(safety: Safety) -> None:
    """Refuse a reading on the open machine under voltage outside live mode."""
    if safety.state is SafetyState.LIVE or safety.is_shut:
        return
    what = "the machine is open and under voltage"
    remedy = "pull the plug and shut it; work on the open machine needs live mode, with its reason"
    raise SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL, *shut_acts(safety), LIVE_MODE))


def _refuse_live_though_forbidden(safety: Safety) -> None:
    danger = safety.danger(DangerId.LIVE_THOUGH_FORBIDDEN)
    if danger is None or Forbidden.READING not in danger.forbids:
        return
    what = f"pull the plug: {danger.words}; no other reading now"
    raise SafetyRefusalError(what=what, remedy=danger.lifted_by, field="danger", acts=(PULL, danger.act))


def _under_voltage(safety: Safety, words: str) -> SafetyRefusalError:
    if safety.state is SafetyState.LIVE:
        what = f"live mode: no {words} reading on a machine under voltage"
        remedy = "unplug it, prove it dead and leave live mode first"
    else:
        what = f"UNDER VOLTAGE ({safety.walk.powered}): no {words} reading, and no reason helps"
        remedy = "treat it as live: unplug it, note that in Safe, and prove it dead"
    return SafetyRefusalError(what=what, remedy=remedy, field="safety", acts=(PULL, PROVE))
