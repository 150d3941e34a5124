"""Taking a leak test: allowed now, of parts that may leak, shown by a meter that can."""

from __future__ import annotations

from collections.abc import Sequence

from ohmcensus.core.acts import ActId, again
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import HOLDS, TRIPS, RunMade
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.machine.netlist import not_on_sheet
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import show_value
from ohmcensus.core.safety.admission import admitted_leak_test, refuse_leak_test_now
from ohmcensus.core.safety.state import Safety
from ohmcensus.core.trip.house import stood_on
from ohmcensus.core.trip.of_case import driven_in, leaky_parts
from ohmcensus.core.trip.problem import Method, Polarity, run_indication


def taken_leak_test(case: Case, body: RunMade, safety: Safety, meters: Sequence[Meter]) -> RunMade:
    """Return a leak test with the meter that showed it.

    Parameters
    ----------
    case, safety
        Sheet and everything observed; where the job stands.
    body
        The leak test.
    meters
        Those at hand, the preferred one first; just one where the person named it.

    Raises
    ------
    SafetyRefusalError
        For an insulation test on a machine that is not proved dead.
    InputError
        If a part is not among those that may leak, the reading cannot be read, no meter at hand can have
        shown it, or a leakage run does not say how the plug sat.
    """
    method = Method(body.method)
    names = {part.id for part in leaky_parts(case.sheet, method)}
    for part in (*body.connected, *body.maybe):
        if part not in names:
            raise not_on_sheet(what="part", name=part, known=sorted(names))
    admitted_leak_test(body, safety)
    driven_in(case, body)
    if method is Method.LEAKAGE and body.polarity is None:
        what = "a leakage run without polarity"
        raise InputError(what=what, remedy="say whether the plug sits as found or turned", field="polarity")
    if body.polarity == Polarity.REVERSED.value and not is_plug_turned_freely(case):
        what = "this plug goes in one way only: it cannot have been turned"
        raise InputError(what=what, remedy="leave 'turned' out; the insulation test clears a part", field="polarity")
    if body.has_tripped is not None:
        return _by_device(case, body)
    able = [meter for meter in meters if meter.measures(body.function)]
    if not able:
        what = f"no meter at hand reads {body.function.value}"
        raise InputError(what=what, remedy="choose one that does, or add yours in Setup", field="meter")
    return body.model_copy(update={"instrument": _shown_by(able, body, method)})


def may_test(method: Method, safety: Safety) -> str:
    """Return why no leak test may be made now, empty where one may."""
    body = RunMade(method=method.value, connected=("any",), text="0")
    try:
        admitted_leak_test(body, safety)
        refuse_leak_test_now(body.function, safety)
    except SafetyRefusalError as error:
        return str(error)
    return ""


def _by_device(case: Case, body: RunMade) -> RunMade:
    """Return a leak test that a protective device answered, with the device as it stands."""
    if body.function is not Function.LEAKAGE:
        what = f"'{body.text}' is not an insulation reading"
        raise InputError(what=what, remedy=f"{TRIPS} and {HOLDS} are said of a live run", field="text")
    stood = stood_on(case)
    if stood is None:
        what = "no residual-current device on an earthed neutral is noted here"
        raise InputError(what=what, remedy="note it under Circuit of the house, or use a meter", field="text")
    if not body.are_wires_insulated:
        what = "a live run with wires off"
        remedy = "insulate each loose wire by itself, leave the earth on, and say so"
        acts = (again(ActId.OVER_IT, "Each wire is insulated, the earth is on", {"are_wires_insulated": True}),)
        raise SafetyRefusalError(what=what, remedy=remedy, field="are_wires_insulated", acts=acts)
    return body.model_copy(update={"device": stood})


def _shown_by(meters: Sequence[Meter], body: RunMade, method: Method) -> Meter:
    """Return the first meter that can have shown the reading."""
    for meter in meters:
        shown = run_indication(body.text, method, meter.over_range_texts)
        if shown.value is not None and shown.value < 0:
            raise InputError(what=f"{body.text} is negative", remedy="no tester shows that", field="text")
        if meter.can_show(shown, body.function):
            return meter
    full = show_value(meters[0].full_scale(body.function), body.function.unit)
    unit = "µA" if method is Method.LEAKAGE else "kΩ"
    remedy = f"its scale ends at {full}; was it {unit}? Over-range is typed >{full}"
    raise InputError(what=f"{meters[0].title} cannot have shown {body.text}", remedy=remedy, field="text")
