"""The demo: a small marina with its wash house, the boats moored there and a lock cottage, on shore power.

Everything is made up. Seeding goes through the same use cases as a person's work, each at its own moment.
"""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta
from uuid import NAMESPACE_URL, UUID, uuid5

from ohmcensus.core.event import Body, Changed, ConnectorTicked, Ended, StripBack, StripStep
from ohmcensus.core.firm import Firm
from ohmcensus.core.shelf import Mark, OrderState, Origin
from ohmcensus.core.worth import Condition
from ohmcensus.demo.other_types import OTHER_TYPES
from ohmcensus.demo.pictures import drawn
from ohmcensus.demo.stories import (
    HEATER_SPARE,
    LOCK_ORIGINAL,
    PUMP_SPARE,
    STORIES,
    WASH_HOUSE,
    Back,
    Snap,
    Story,
)
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.at_hand.settings import Settings
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.event.record_event import NewEvent, record_event, write_event
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.list_jobs import list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import NewPhoto, keep_photo
from ohmcensus.services.reading.log_reading import NewReading, write_reading
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.setup.change_settings import keep_settings
from ohmcensus.services.setup.keep_address import Address, AddressKind, keep_address
from ohmcensus.services.setup.keep_mark import keep_mark
from ohmcensus.services.shelf.keep_spare import NewAcceptance, NewSpare, keep_spare, measure_spare
from ohmcensus.services.shelf.keep_wanted import NewOffer, NewWanted, keep_wanted

FIRM = Firm(
    name="Reedmere Wash House Service",
    address="Slipway 2\nReedmere Marina",
    contact="desk@reedmere.example",
    currency="EUR",
    tax_name="VAT",
    tax_percent=20.0,
    zone="Europe/Lisbon",
)


def seed_demo(context: Context) -> None:
    """Fill an empty data directory with the demo; one that holds jobs is left as it is."""
    if _has_jobs(context):
        return
    keep_settings(context, Settings(technician="Duty technician", ambient_celsius=21.0, firm=FIRM))
    keep_mark(context, "mark.jpg", drawn("mark"))
    _address_book(context)
    _shelf(_at(context, context.clock() - timedelta(days=3)))
    start = context.clock()
    told = {}
    for number, story in enumerate((*STORIES, *OTHER_TYPES)):
        told[story.machine] = _id(str(number))
        _tell(context, story, told[story.machine], start)
    _wanted(context, told["Lock cottage washer"])


def prepare_demo(context: Context) -> None:
    """Tell the demo and work out what its suspects follow from, so that nobody waits for it on a screen."""
    seed_demo(context)
    with context.store.read() as session:
        sheets = sheets_in(session)
    for sheet_id in dict.fromkeys(story.sheet for story in (*STORIES, *OTHER_TYPES)):
        table_of(context.store.folder, sheets[sheet_id])


def _has_jobs(context: Context) -> bool:
    found = list_jobs(context)
    return bool(found.going or found.ended)


def _address_book(context: Context) -> None:
    """Write down who owns the places."""
    marina = uuid5(NAMESPACE_URL, "ohmcensus demo marina")
    entries = (
        (marina, AddressKind.CUSTOMER, "Reedmere Marina", "Harbour office, key at the desk", None),
        (_id("wash house"), AddressKind.PLACE, WASH_HOUSE, "Behind the slipway", marina),
        (_id("heron"), AddressKind.PLACE, "Narrowboat Heron's Rest, berth 14", "Shore power pillar 7", marina),
        (_id("tern"), AddressKind.PLACE, "Trawler Bright Tern, visitors' pontoon", "Own 120 V supply", None),
        (_id("cottage"), AddressKind.PLACE, "Lock cottage, upper gate", "Towpath only, no car", None),
        (_id("wagtail"), AddressKind.PLACE, "Houseboat Wagtail, berth 3", "Shore power pillar 2", marina),
        (_id("loft"), AddressKind.PLACE, "Anchor Loft guest house, laundry on the first floor", "Ring twice", None),
        (_id("chandlery"), AddressKind.PLACE, "Chandlery, back room", "Own 120 V supply", marina),
        (_id("lighthouse"), AddressKind.PLACE, "Keeper's house at the lighthouse, ground floor", "Low tide only", None),
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
    keep_intake(_at(context, opened), str(job_id), intake)
    when = opened
    for line, text in story.notes:
        note = NewNote(id=uuid5(job_id, f"note {line}"), revision=_revision(context, job_id), line=line, text=text)
        write_note(_at(context, when), str(job_id), note)
    for index in range(len(story.done)):
        when = opened + timedelta(seconds=60 + index * story.pace_s)
        _do(_at(context, when), story, job_id, index)


def _revision(context: Context, job_id: UUID) -> int:
    with context.store.read() as session:
        return take(context, session, str(job_id)).stored.revision


def _do(context: Context, story: Story, job_id: UUID, index: int) -> None:
    """Let one thing of a story happen."""
    thing = story.done[index]
    if isinstance(thing, str):
        new = NewReading(id=uuid5(job_id, str(index)), revision=_revision(context, job_id), text=thing)
        write_reading(context, str(job_id), new)
    elif isinstance(thing, Snap):
        _snap(context, story, job_id, index)
    elif isinstance(thing, Back):
        _put_back(context, story, job_id, index)
    elif isinstance(thing, Changed) and thing.spare:
        _record(context, job_id, index, thing.model_copy(update={"spare": str(_id(thing.spare))}))
    else:
        _record(context, job_id, index, thing)


def _record(context: Context, job_id: UUID, place: int | str, body: Body) -> None:
    new = NewEvent(id=uuid5(job_id, str(place)), revision=_revision(context, job_id), body=body)
    if isinstance(body, Ended):
        record_event(context, str(job_id), new)
    else:
        write_event(context, str(job_id), new)


def _snap(context: Context, story: Story, job_id: UUID, index: int) -> None:
    """Keep a photo of the last step, or of a connector, and note its pins."""
    snap = story.done[index]
    assert isinstance(snap, Snap)  # noqa: S101 - the caller sorted them out
    photo_id = uuid5(job_id, f"photo {index}")
    step = max((at for at in range(index) if isinstance(story.done[at], StripStep)), default=-1)
    is_connector = snap.connector is not None
    new = NewPhoto(
        id=photo_id,
        role="connector" if is_connector else "step",
        name=f"{snap.picture}.jpg",
        body=drawn(snap.picture),
        event="" if is_connector else str(uuid5(job_id, str(step))),
    )
    keep_photo(context, str(job_id), new)
    if snap.connector is not None:
        _record(context, job_id, index, snap.connector.model_copy(update={"photo": str(photo_id)}))


def _put_back(context: Context, story: Story, job_id: UUID, index: int) -> None:
    """Put a step back whole; with the first step that goes back, the connectors are held against their photos."""
    back = story.done[index]
    assert isinstance(back, Back)  # noqa: S101 - the caller sorted them out
    steps = [(at, row) for at, row in enumerate(story.done) if isinstance(row, StripStep)]
    at, step = steps[back.step]
    body = StripBack(step=str(uuid5(job_id, str(at))), fasteners=step.fasteners, plugs=step.plugs)
    _record(context, job_id, index, body)
    if back.step:
        return
    for photo, row in enumerate(story.done):
        if isinstance(row, Snap) and row.connector is not None:
            pins = tuple(pin.number for pin in row.connector.pins)
            ticked = ConnectorTicked(photo=str(uuid5(job_id, f"photo {photo}")), pins=pins)
            _record(context, job_id, f"tick {photo}", ticked)


def _shelf(context: Context) -> None:
    """Put three pieces on the shelf, each measured in the hand."""
    heater = {"sheet": "fl7-u", "part": "heater", "type_number": "FL7-U/2", "variant": "heater: two tags"}
    pump = {"sheet": "fl7-u", "part": "pump", "type_number": "FL7-U/1", "variant": "pump: white plug, three tags"}
    salvaged = {"origin": Origin.SALVAGED, "salvaged_from": "a front-loader that the harbour scrapped"}
    pieces = (
        (HEATER_SPARE, {**heater, **salvaged, "tested": "washed warm on the day", "place": "Tray 1"}),
        (PUMP_SPARE, {**pump, **salvaged, "place": "Tray 2"}),
        (
            LOCK_ORIGINAL,
            {
                "sheet": "fl7-u",
                "part": "lock",
                "type_number": "FL7-U/2",
                "variant": "lock: three tags",
                "origin": Origin.SALVAGED,
                "salvaged_from": "Machine 3, wash house",
                "tested": "locked now and then",
                "mark": Mark.ORIGINAL,
                "place": "Tray 2",
            },
        ),
    )
    for name, piece in pieces:
        keep_spare(context, _id(name), NewSpare.model_validate(piece))
    for name, test, text in (
        (HEATER_SPARE, "element", "26.1"),
        (HEATER_SPARE, "pe", ">299M"),
        (PUMP_SPARE, "coil", "154"),
        (LOCK_ORIGINAL, "ptc", "OL"),
    ):
        measure_spare(context, _id(name), NewAcceptance(id=_id(f"{name} {test}"), test=test, text=text))


def _wanted(context: Context, job: UUID) -> None:
    """Order the pump of the lock cottage for its exact plug."""
    offers = [
        NewOffer(source="Parts counter at the mill", price="41.50", days="2"),
        NewOffer(source="Chandler's second-hand shelf", condition=Condition.TESTED_USED, price="18", days="0"),
    ]
    new = NewWanted(
        part="pump",
        type_number="FL7-U/2",
        variant="pump: grey plug, two tags",
        offers=offers,
        chosen=0,
        state=OrderState.ORDERED,
    )
    keep_wanted(context, str(job), _id("wanted pump"), new)


def _at(context: Context, moment: datetime) -> Context:
    """Return the context at another moment."""
    return replace(context, clock=lambda: moment.astimezone(UTC))
