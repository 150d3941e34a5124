"""Dangers: what opens one, and what it was that was found."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ohmcensus.core.event import Checked, CheckOutcome, Hazard, Tripped
from ohmcensus.core.job.case import Frame
from ohmcensus.core.judgement.passes import EARTH_LINE, WHOLE_LINE, Pass, named_test, part_of
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.asked import looks
from ohmcensus.core.machine.dead_tests import is_proof
from ohmcensus.core.machine.net import Crossing, nets_of
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import show_value
from ohmcensus.core.safety.evidence import Evidence, is_leak_test, leak_test_title
from ohmcensus.core.safety.words import DangerId
from ohmcensus.core.symptom import Device, Moment, Symptom

OF_SYMPTOM = {
    Symptom.SHOCK: DangerId.SHOCK,
    Symptom.TRIPS: DangerId.TRIP,
    Symptom.SMELLS: DangerId.BURNT_SMELL,
}
OF_HAZARD = {
    Hazard.SHOCK: DangerId.SHOCK,
    Hazard.TRIP: DangerId.TRIP,
    Hazard.BURNT_SMELL: DangerId.BURNT_SMELL,
    Hazard.WATER_INSIDE: DangerId.WATER_INSIDE,
    Hazard.BYPASS: DangerId.BYPASS,
    Hazard.DRY: DangerId.DRY,
    Hazard.EARTH_OFF: DangerId.EARTH,
}
OUTLET_LINE = "outlet"
CORD_CHECK, DEVICES_CHECK = "cord", "protective_devices"
_OHMS = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION})
_CORD_LINES = frozenset({"cord.l", "cord.n", "cord.cores"})
# Line to earth at a good outlet is at least this share of the rated voltage (SAFETY).
FULL = 0.8
# A current over the loads of its step by half a heater means that a heater runs beside them (SAFETY).
HALF = 0.5
AMPS = "amps_"


@dataclass(frozen=True, slots=True)
class Found:
    """One cause of a danger, from the record that opened it.

    Parameters
    ----------
    id
        Which danger.
    line
        The line that was measured, or what was told, seen or taken off, by which the same cause is known again.
    words
        What was found.
    since, at
        Order and moment of the record.
    terms
        What held then; the stricter of then and now holds.
    is_measured
        Whether a meter found it: then nobody noted it in error.
    record
        Id of the reading or run, empty where it was told.
    part
        The part whose line it is, None of the whole machine's.
    device, moment
        Of a trip.
    is_again
        Whether the same trip came back after it had been lifted.
    is_intermittent
        Whether its line read good since, without a change: it comes and goes.
    is_corrected
        Whether its reading was corrected within two minutes.
    """

    id: DangerId
    line: str
    words: str
    since: int
    at: str
    terms: Terms
    is_measured: bool = False
    record: str = ""
    part: str | None = None
    device: Device = Device.UNKNOWN
    moment: Moment = Moment.UNKNOWN
    is_again: bool = False
    is_intermittent: bool = False
    is_corrected: bool = False


def told(frame: Frame, before: Frame | None, order: int) -> Iterator[Found]:
    """Yield the dangers that a complaint tells and the one before it did not.

    Parameters
    ----------
    frame, before
        What holds now, and what held before; None at the beginning.
    order
        Revision of the record.
    """
    complaint, earlier = frame.complaint, before.complaint if before else None
    for symptom in complaint.symptoms:
        known = earlier is not None and symptom in earlier.symptoms
        if symptom in OF_SYMPTOM and not known:
            danger = OF_SYMPTOM[symptom]
            trips = danger is DangerId.TRIP
            yield Found(
                danger,
                "complaint",
                complaint.device.words if trips and complaint.device is not Device.UNKNOWN else "",
                order,
                "",
                frame.terms,
                device=complaint.device if trips else Device.UNKNOWN,
                moment=complaint.moment if trips else Moment.UNKNOWN,
            )
    for row in complaint.alterations:
        if row.is_bypass and (earlier is None or row not in earlier.alterations):
            yield Found(DangerId.BYPASS, f"told {row.words}", row.words, order, "", frame.terms)


# What a danger without a line asks: the whole earth, the whole insulation.
_LINE_OF = {DangerId.EARTH: EARTH_LINE, DangerId.INSULATION: WHOLE_LINE, DangerId.CORD: "cord"}


def former(frame: Frame, before: Frame | None, order: int) -> Iterator[Found]:
    """Yield the dangers with which the last job on this serial number ended as unsafe.

    Parameters
    ----------
    frame, before
        What holds now, and what held before; None at the beginning.
    order
        Revision of the record.
    """
    known = before.former if before else ()
    for name in frame.former:
        if name in known or name not in set(DangerId):
            continue
        danger = DangerId(name)
        line = _LINE_OF.get(danger, "former")
        is_measured = danger in _LINE_OF and danger is not DangerId.CORD
        cord = next((part.id for part in frame.sheet.with_role(Role.CORD)), None)
        part = cord if danger in {DangerId.CORD, DangerId.EARTH} else None
        words = "the last job on this machine ended as unsafe"
        yield Found(danger, line, words, order, "", frame.terms, is_measured=is_measured, is_corrected=True, part=part)


def of_trip(body: Tripped, order: int, at: str, terms: Terms) -> Found:
    """Return the danger of a protective device that went."""
    words = body.device.words if body.device is not Device.UNKNOWN else ""
    return Found(DangerId.TRIP, "trip", words, order, at, terms, device=body.device, moment=body.moment)


def seen(body: Checked, order: int, at: str, terms: Terms) -> Found | None:
    """Return the danger that a look found, None where it found none."""
    if body.outcome is not CheckOutcome.BAD:
        return None
    part, check = looks(terms.sheet).get(body.check, (None, None))
    title = (check.title if check else body.check.replace("_", " ")).lower()
    words = f"{title}: {body.words or (check.bad if check else 'bad')}"
    kind = (
        DangerId.CORD
        if body.check == CORD_CHECK or (part and part.traits.role is Role.CORD)
        else DangerId.TRIP
        if body.check == DEVICES_CHECK
        else DangerId.BYPASS
        if check and check.id == "bypass"
        else DangerId.BURNT_SMELL
        if check and check.id == "burns"
        else None
    )
    if kind is None:
        return None
    return Found(kind, body.check, words, order, at, terms, part=part.id if part else None)


def measured(row: Evidence, terms: Terms) -> Found | None:
    """Return the danger that a line opens where it surely breaks its limit, None where it does not."""
    if row.result(terms) is not Pass.BAD:
        return _over_its_loads(row, terms)
    kind = _kind_of(row, terms)
    if kind is None:
        return None
    part = next(iter(row.connected)) if len(row.connected) == 1 else part_of(row.line, terms)
    limit = row.limit(terms)
    words = f"{title_of(row.line, terms)} reads {row.shows}" + (f", should read {limit}" if limit else "")
    device = Device.FUSE if kind is DangerId.TRIP else Device.UNKNOWN
    return Found(
        kind, row.line, words, row.order, row.at, terms, is_measured=True, record=row.id, part=part, device=device
    )


def _kind_of(row: Evidence, terms: Terms) -> DangerId | None:
    """Return which danger a line opens when it is bad."""
    if row.reading is None or row.reading.function is Function.LEAKAGE:
        return DangerId.INSULATION
    if row.line in _CORD_LINES:
        return DangerId.CORD
    crossing = nets_of(terms.sheet).crossing(row.reading.between)
    if row.reading.function in _OHMS and crossing is not Crossing.OTHER:
        return DangerId.EARTH if crossing is Crossing.EARTH else DangerId.INSULATION
    return _of_contact(row, terms)


def _of_contact(row: Evidence, terms: Terms) -> DangerId | None:
    """Return the danger of a contact that is closed at rest, or of a fuse that is open."""
    part_id, _, name = row.line.partition(".")
    part, test = terms.sheet.part(part_id), named_test(row.line, terms)
    if part is None or test is None:
        return None
    is_low = row.interval.hi < test.window.interval.lo
    lock = part.part_kind.interlock
    if lock is not None and name == lock.at_rest:
        return DangerId.BYPASS if is_low else None
    if is_low and (name == "relay" or name.endswith("_rest")):
        return DangerId.CONTACT
    is_fuse = name == "fuse" or part.traits.role is Role.FUSE
    return DangerId.TRIP if is_fuse and row.interval.lo > test.window.interval.hi else None


def outlet_without_earth(rows: Mapping[str, Evidence], terms: Terms) -> bool:
    """Tell whether three voltages surely show line and neutral, and no earth: neither pole stands far from it."""
    full = FULL * terms.sheet.volts
    has_line = rows["ln"].interval.lo >= full
    return has_line and all(rows[name].interval.hi < full for name in ("le", "ne"))


def _over_its_loads(row: Evidence, terms: Terms) -> Found | None:
    """Return a contact that must be closed, where a step draws half a heater more than its own loads."""
    test = named_test(row.line, terms)
    if row.reading is None or test is None or not test.name.startswith(AMPS):
        return None
    heaters = [part.ratings for part in terms.sheet.parts if part.traits.is_heating]
    amperes = [float(getattr(row, "watts", 0.0)) / terms.sheet.volts for row in heaters]
    over = (test.window.nominal or 0.0) + HALF * max(amperes, default=float("inf"))
    if not row.interval.lo > over:
        return None
    words = f"{test.title} reads {row.shows}, its loads take {show_value(test.window.nominal or 0.0, test.window.unit)}"
    return Found(DangerId.CONTACT, row.line, words, row.order, row.at, terms, is_measured=True, record=row.id)


def title_of(line: str, terms: Terms) -> str:
    """Return a line in print: "heater, to earth", or both points."""
    test = named_test(line, terms)
    if test is not None and is_proof(test.id):
        return test.title
    if test is not None:
        return f"{test.part_title.lower()}, {test.title}"
    if line.startswith("proof."):
        return line.removeprefix("proof.").replace("_", " ")
    if is_leak_test(line):
        return leak_test_title(line, terms)
    return " to ".join(line.split(" "))
