"""Taking a run: allowed now, of parts that may leak, shown by a meter that can."""

from __future__ import annotations

from datetime import datetime

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import HOLDS, TRIPS, RunMade
from ohmcensus.core.machine.netlist import not_on_sheet
from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import show_value
from ohmcensus.core.safety import SafetyState, refuse_unsafe, safety_at
from ohmcensus.core.trip.house import stood_on
from ohmcensus.core.trip.of_case import driven_in, suspects
from ohmcensus.core.trip.problem import Method, run_indication
from ohmcensus.services.at_hand import JobAtHand
from ohmcensus.services.preview_line import meters_for


def taken_run(job: JobAtHand, body: RunMade, now: datetime) -> RunMade:
    """Return a run with the meter that showed it.

    Raises
    ------
    SafetyRefusalError
        For an insulation test on a machine that is not proved dead, a leakage run outside live mode.
    InputError
        If a part is not among those that may leak, the reading cannot be read, no meter at hand can have
        shown it, or a leakage run does not say how the plug sat.
    """
    method = Method(body.method)
    names = {part.id for part in suspects(job.case, method)}
    for part in (*body.connected, *body.maybe):
        if part not in names:
            raise not_on_sheet(what="part", name=part, known=sorted(names))
    _refuse_now(job, method, now)
    driven_in(job.case, body)
    if method is Method.LEAKAGE and body.polarity is None:
        what = "a leakage run without polarity"
        raise InputError(what=what, remedy="say whether the plug sits as found or turned", field="polarity")
    if body.has_tripped is not None:
        return _by_device(job, body)
    meters = [meter for meter in meters_for(job, body.meter or None) if meter.measures(body.function)]
    if not meters:
        what = f"no meter at hand reads {body.function.value}"
        raise InputError(what=what, remedy="choose one that does, or add yours in Setup", field="meter")
    return body.model_copy(update={"instrument": _shown_by(meters, body, method)})


def _by_device(job: JobAtHand, body: RunMade) -> RunMade:
    """Return a run that a protective device answered, with the device as it stands."""
    if body.function is not Function.LEAKAGE:
        what = f"'{body.text}' is no insulation reading"
        raise InputError(what=what, remedy=f"{TRIPS} and {HOLDS} are said of a live run", field="text")
    stood = stood_on(job.case)
    if stood is None:
        what = "no residual-current device on an earthed neutral is noted here"
        raise InputError(what=what, remedy="note it under Circuit of the house, or use a meter", field="text")
    if not body.are_wires_insulated:
        what = "a live run with wires off"
        remedy = "insulate each loose wire by itself, leave the earth on, and say so"
        raise SafetyRefusalError(what=what, remedy=remedy, field="are_wires_insulated")
    return body.model_copy(update={"device": stood})


def may_run(job: JobAtHand, method: Method, now: datetime) -> str:
    """Return why no run may be made now, empty where one may."""
    try:
        _refuse_now(job, method, now)
    except SafetyRefusalError as error:
        return str(error)
    return ""


def _refuse_now(job: JobAtHand, method: Method, now: datetime) -> None:
    state = safety_at(job.case, now).state
    if method is Method.LEAKAGE and state is not SafetyState.LIVE:
        what = "a leakage run needs power"
        raise SafetyRefusalError(what=what, remedy="enter live mode in Safe, with its reason", field="safety")
    if method is Method.INSULATION:
        refuse_unsafe(Function.INSULATION, state)


def _shown_by(meters: list[Meter], body: RunMade, method: Method) -> Meter:
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
