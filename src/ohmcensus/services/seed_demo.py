"""The demo: a small marina with its wash house, the boats moored there and a lock cottage, on shore power.

Everything is made up. Seeding goes through the same use cases as a person's work, each at its own moment.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import NAMESPACE_URL, UUID, uuid5

from ohmcensus.core.codes import Outcome
from ohmcensus.core.event import (
    Appliance,
    Body,
    Checked,
    CheckOutcome,
    CircuitNoted,
    CodesRead,
    CycleBegun,
    CycleTicked,
    Ended,
    EntryTried,
    Isolated,
    Opened,
    RunMade,
    StepTicked,
    Supply,
)
from ohmcensus.core.intake import Alteration, Complaint, DataPlate, Trial
from ohmcensus.core.symptom import Device, Moment, Symptom
from ohmcensus.services.context import Context
from ohmcensus.services.keep_address import Address, AddressKind, keep_address
from ohmcensus.services.keep_intake import NewIntake, keep_intake
from ohmcensus.services.keep_settings import Settings, keep_settings
from ohmcensus.services.log_reading import NewReading, log_reading
from ohmcensus.services.open_job import NewJob, open_job
from ohmcensus.services.record_event import NewEvent, record_event
from ohmcensus.services.show_job import list_jobs
from ohmcensus.services.write_note import NewNote, write_note

# What may leak on the front-loader of the wash house.
LEAKERS = ("cord", "filter", "heater", "motor", "valve", "prewash", "pump", "harness")
WASH_HOUSE = "Wash house, Reedmere Marina"
OUTLET = ("outlet 229", "outlet le 228", "outlet ne 1.4")
PROOF: tuple[Body | str, ...] = (
    Isolated(),
    StepTicked(step="taps"),
    StepTicked(step="drain"),
    StepTicked(step="floor"),
    StepTicked(step="discharge1"),
    "source 230",
    "dead ln 0.2",
    "dead le 0.1",
    "dead ne 0.1",
    "dead filter 0.4",
    "source 230",
)


def _looked(**found: str) -> tuple[Body, ...]:
    """Return checks by eye, good where nothing is said of them."""
    names = ("protective_devices", "cord", "taps", "drain_filter", "strike")
    return tuple(
        Checked(check=name, outcome=CheckOutcome.BAD if name in found else CheckOutcome.GOOD, words=found.get(name, ""))
        for name in names
    )


@dataclass(frozen=True)
class Story:
    """One job: what was said, and everything that was done, in order.

    Parameters
    ----------
    machine, place
        Where.
    minutes_ago, pace_s
        When it was opened, and the seconds from one thing to the next.
    complaint, plate
        The intake.
    sheet
        The machine's type.
    done
        Readings as typed, and events.
    notes
        By line.
    """

    machine: str
    place: str
    minutes_ago: int
    complaint: Complaint
    plate: DataPlate
    done: tuple[Body | str, ...] = ()
    notes: tuple[tuple[str, str], ...] = ()
    pace_s: int = 30
    sheet: str = "fl7-u"


def _plate(serial: str, **more: str) -> DataPlate:
    return DataPlate(
        type_number="FL7-U/2", serial=serial, volts=230.0, hertz=50.0, watts=2200.0, protection_class="I", **more
    )


_STORIES = (
    Story(
        "Machine 3",
        WASH_HOUSE,
        60 * 24 * 41,
        Complaint(words="Will not start, lamps are on.", symptoms=(Symptom.NO_START,)),
        _plate("OC-0114"),
        (*OUTLET, *_looked(), *PROOF, "lock OL", "lock loose 1.21k", Ended(why="New door lock, locks and washes.")),
    ),
    Story(
        "Lock cottage washer",
        "Lock cottage, upper gate",
        60 * 26,
        Complaint(
            words="Washed fine for years, now the door will not open after the rinse.",
            symptoms=(Symptom.NO_OPEN, Symptom.NO_DRAIN),
            tried=(Trial(words="door pulled by hand", by="owner"),),
        ),
        _plate("OC-0417", variants="pump: grey plug, two tags"),
        (
            *OUTLET,
            *_looked(drain_filter="a sock, cleared; still no drain"),
            *PROOF,
            Opened(panel="front"),
            "cord pe 0.08",
            "filter l 0.4",
            "filter n 0.4",
            "lock 1.31k",
            "lock unlocked 0.3",
            "lock locked 0.3",
            "pump OL",
        ),
        (("pump.coil", "One tag was off and green. Read again on bright metal: still OL."),),
    ),
    Story(
        "Galley washer",
        "Narrowboat Heron's Rest, berth 14",
        95,
        Complaint(
            words="Stops a minute into every wash on shore power. Runs on the boat's own inverter.",
            symptoms=(Symptom.STOPS, Symptom.CODE),
        ),
        _plate("OC-0388"),
        (
            CircuitNoted(supply=Supply.GALVANIC_ISOLATOR, appliances=(Appliance(name="Charger", leakage_ma=2.4),)),
            "outlet 221",
            "outlet le 218",
            "outlet ne 3.1",
            EntryTried(sequence="service_mode", is_in=False),
            EntryTried(sequence="service_mode", is_in=True),
            CodesRead(scheme="lamps", codes=("21", "9")),
            CycleBegun(cycle="self_test"),
            CycleTicked(cycle="self_test", step="lock", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="main_valve", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="prewash_valve", outcome=Outcome.PASSED),
            CycleTicked(cycle="self_test", step="turn", outcome=Outcome.FAILED),
        ),
    ),
    Story(
        "Laundry locker",
        "Trawler Bright Tern, visitors' pontoon",
        70,
        Complaint(
            words="Fills, hums, the basket stands still. The owner gave it a push and it turned once.",
            symptoms=(Symptom.NO_TURN, Symptom.HUMS),
            tried=(Trial(words="basket pushed by hand: it turned", by="owner"),),
        ),
        DataPlate(type_number="TL4-C/1", serial="OC-0560", volts=120.0, hertz=60.0, watts=800.0, protection_class="I"),
        (
            CircuitNoted(supply=Supply.GENERATOR, device=Device.GFCI, curve="", rated_a=15),
            "outlet 121",
            "outlet le 61",
            "outlet ne 59",
            *_looked(),
            Isolated(),
            StepTicked(step="taps"),
            StepTicked(step="drain"),
            StepTicked(step="floor"),
            StepTicked(step="discharge1"),
            "source 121",
            "dead ln 0.1",
            "dead le 0.1",
            "dead ne 0.1",
            "dead filter 0.2",
            "dead capacitor 0.6",
            "source 121",
            Opened(panel="base"),
            "cord pe 0.11",
            "motor run 1.8",
            "motor start 5.1",
            "capacitor 21.4u",
            "lid 0.3",
        ),
        sheet="tl4-c",
    ),
    Story(
        "Machine 1",
        WASH_HOUSE,
        48,
        Complaint(
            words="Cold water only. The quayside heater ran at the same time.",
            symptoms=(Symptom.NO_HEAT,),
            alterations=(Alteration(words="heater tags look newer than the rest"),),
        ),
        _plate("OC-0112"),
        (
            *OUTLET,
            *_looked(),
            *PROOF,
            Opened(panel="back"),
            "heater OL",
            "ntc 10.9k at 23C",
            "board relay OL",
            "board coil 271",
            "harness heater 0.2",
        ),
        (("heater.element", "Both tags bright, connector not burnt."),),
    ),
    Story(
        "Machine 3",
        WASH_HOUSE,
        23,
        Complaint(
            words="Trips the RCD about ten minutes into a hot wash, cold washes run through.",
            symptoms=(Symptom.TRIPS,),
            device=Device.RCD,
            moment=Moment.HEATING,
            tried=(Trial(words="other outlet, same", by="wash house keeper"),),
        ),
        _plate("OC-0114"),
        (
            *OUTLET,
            *_looked(),
            *PROOF,
            Opened(panel="back"),
            "cord l 0.04",
            "cord n 0.03",
            "cord pe 0.07",
            "filter l 0.4",
            "filter n 0.5",
            "filter across 684k",
            "filter x 0.466u",
            "lock 1.12k",
            "heater pe 47k",
            "ntc 10.4k at 24C",
            "motor field 1.9",
            "motor armature 4.9",
            "tacho 71",
            "brush 1 19mm",
            "between heater.pe motor.pe 0.3",
            CircuitNoted(
                appliances=(
                    Appliance(name="Machine 1", leakage_ma=0.6),
                    Appliance(name="Tumble dryer", leakage_ma=1.9),
                    Appliance(name="Till and lights", leakage_ma=0.8),
                ),
            ),
            RunMade(method="insulation", connected=LEAKERS, text="0.05M"),
        ),
        (("motor.armature", "Steady while turned."),),
    ),
)


def seed_demo(context: Context) -> None:
    """Fill an empty data directory with the demo; one that holds jobs is left as it is."""
    if list_jobs(context):
        return
    keep_settings(context, Settings(technician="Duty technician", ambient_celsius=21.0))
    _address_book(context)
    start = context.clock()
    for number, story in enumerate(_STORIES):
        _tell(context, story, uuid5(NAMESPACE_URL, f"ohmcensus demo {number}"), start)


def _address_book(context: Context) -> None:
    """Write down who owns the places."""
    marina = uuid5(NAMESPACE_URL, "ohmcensus demo marina")
    entries = (
        (marina, AddressKind.CUSTOMER, "Reedmere Marina", "Harbour office, key at the desk", None),
        (_id("wash house"), AddressKind.PLACE, WASH_HOUSE, "Behind the slipway", marina),
        (_id("heron"), AddressKind.PLACE, "Narrowboat Heron's Rest, berth 14", "Shore power pillar 7", marina),
        (_id("tern"), AddressKind.PLACE, "Trawler Bright Tern, visitors' pontoon", "Own 120 V supply", None),
        (_id("cottage"), AddressKind.PLACE, "Lock cottage, upper gate", "Towpath only, no car", None),
        (_id("duty"), AddressKind.TECHNICIAN, "Duty technician", "", None),
    )
    for entry_id, kind, name, contact, customer in entries:
        keep_address(context, Address(id=entry_id, kind=kind, name=name, contact=contact, customer_id=customer))


def _id(name: str) -> UUID:
    return uuid5(NAMESPACE_URL, f"ohmcensus demo {name}")


def _tell(context: Context, story: Story, job_id: UUID, start: datetime) -> None:
    """Let one story happen."""
    opened = start - timedelta(minutes=story.minutes_ago)
    job = open_job(_at(context, opened), NewJob(id=job_id, machine=story.machine, place=story.place, sheet=story.sheet))
    intake = NewIntake(
        intake_revision=job.revision,
        machine=story.machine,
        place=story.place,
        sheet=story.sheet,
        complaint=story.complaint,
        plate=story.plate,
    )
    revision = keep_intake(_at(context, opened), str(job_id), intake).job.revision
    when = opened
    for index, thing in enumerate(story.done):
        when = opened + timedelta(seconds=60 + index * story.pace_s)
        revision = _do(_at(context, when), job_id, revision, uuid5(job_id, str(index)), thing)
    for line, text in story.notes:
        note = NewNote(id=uuid5(job_id, f"note {line}"), revision=revision, line=line, text=text)
        revision = write_note(_at(context, when), str(job_id), note).job.revision


def _do(context: Context, job_id: UUID, revision: int, row_id: UUID, thing: Body | str) -> int:
    """Log a reading, or write down an event; return the job's revision after it."""
    if isinstance(thing, str):
        return log_reading(context, str(job_id), NewReading(id=row_id, revision=revision, text=thing)).job.revision
    return record_event(context, str(job_id), NewEvent(id=row_id, revision=revision, body=thing)).revision


def _at(context: Context, moment: datetime) -> Context:
    """Return the context at another moment."""
    return replace(context, clock=lambda: moment.astimezone(UTC))
