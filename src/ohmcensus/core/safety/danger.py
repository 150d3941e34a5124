"""Dangers: what opens one without a meter, and what it was that was told, seen or left behind."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.event import Checked, CheckOutcome, Hazard, Tripped
from ohmcensus.core.job.case import Frame
from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.judgement.passes import EARTH_LINE, WHOLE_LINE, named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.asked import looks
from ohmcensus.core.machine.dead_tests import is_proof
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.safety.evidence import is_leak_test, leak_test_title
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
# The line of an interlock that was tried and did not hold.
TRIED_LINE = "interlock tried"
# The line of a protective device that went, by a trip or in a run.
TRIP_LINE = "trip"
CORD_CHECK, DEVICES_CHECK = "cord", "protective_devices"
FORMER = "former"


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
    is_former
        Whether an earlier job on this machine left it behind.
    reads
        What was read, where that is not the line itself: the pins of the plug, a point of the proof.
    headline
        What it is called, where that is not how the danger is called.
    anew
        What held each time that stricter terms opened it anew.
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
    is_former: bool = False
    reads: str = ""
    headline: str = ""
    anew: tuple[Terms, ...] = ()

    @property
    def then(self) -> tuple[Terms, ...]:
        """What held as it opened, and each time that stricter terms opened it anew."""
        return (self.terms, *self.anew)

    @property
    def title(self) -> str:
        """What it is called."""
        return self.headline or self.id.words


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
_LINE_OF = {DangerId.EARTH: EARTH_LINE, DangerId.INSULATION: WHOLE_LINE, DangerId.CORD: CORD_CHECK}


def former(frame: Frame, before: Frame | None, order: int) -> Iterator[Found]:
    """Yield the dangers that an earlier job on this serial number left behind.

    Parameters
    ----------
    frame, before
        What holds now, and what held before; None at the beginning.
    order
        Revision of the record.
    """
    known = before.former if before else ()
    for row in frame.former:
        if row not in known and row.id in set(DangerId) and row.id != DangerId.LIVE_THOUGH_FORBIDDEN:
            yield _former(row, frame.terms, order)


def _former(row: FormerDanger, terms: Terms, order: int) -> Found:
    danger = DangerId(row.id)
    line = former_line(row)
    words = "an earlier job on this machine ended as unsafe"
    if row.line and named_test(row.line, terms) is not None:
        words += f", by {title_of(row.line, terms)}"
    part = row.part or None
    if part is None and danger in {DangerId.CORD, DangerId.EARTH} and not row.line:
        part = next((each.id for each in terms.sheet.with_role(Role.CORD)), None)
    is_measured = danger in {DangerId.EARTH, DangerId.INSULATION}
    return Found(
        danger, line, words, order, "", terms, is_measured=is_measured, is_corrected=True, is_former=True, part=part
    )


def former_line(row: FormerDanger) -> str:
    """Return the line under which a danger of an earlier job stands on this one."""
    return row.line or _LINE_OF.get(DangerId(row.id), FORMER)


def is_that_former(found: Found, row: FormerDanger) -> bool:
    """Tell whether a danger is one that an earlier job left behind."""
    return found.is_former and found.id.value == row.id and found.line == former_line(row)


def of_trip(body: Tripped, order: int, at: str, terms: Terms) -> Found:
    """Return the danger of a protective device that went."""
    words = body.device.words if body.device is not Device.UNKNOWN else ""
    return Found(DangerId.TRIP, TRIP_LINE, words, order, at, terms, device=body.device, moment=body.moment)


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
