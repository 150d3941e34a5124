"""Intake, address book, photos, codes and sheets on a real store."""

from __future__ import annotations

import io
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from uuid import UUID, uuid4

import pytest
from PIL import Image
from tests.working import every_job, happened, logged, prove_dead, revision

from ohmcensus.core.codes import Click, Meaning, Outcome
from ohmcensus.core.errors import (
    InputError,
    NotFoundError,
    OhmcensusError,
    SafetyRefusalError,
    StaleRevisionError,
    UnknownNameError,
)
from ohmcensus.core.event import (
    Body,
    Checked,
    CheckOutcome,
    CodesRead,
    CycleTicked,
    Ended,
    EntryTried,
    Opened,
    PluggedIn,
    Reopened,
    StepTicked,
)
from ohmcensus.core.intake import Alteration, Complaint, DataPlate
from ohmcensus.core.symptom import Symptom
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.codes.show_codes import Clicks, Pattern, coach, decode, show_codes
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.intake.show_intake import show_intake
from ohmcensus.services.intake.view import IntakeView
from ohmcensus.services.job.list_jobs import JobsQuery, list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_job import show_job
from ohmcensus.services.photo.keep_photo import NewPhoto, find_picture, keep_photo, remove_photo
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.services.setup.keep_address import Address, AddressKind, keep_address, show_addresses
from ohmcensus.services.setup.list_machines import list_machines
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.services.sheet.keep_meanings import Meanings, keep_meanings
from ohmcensus.services.sheet.list_sheets import list_sheets
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.storage import jobs
from ohmcensus.storage.database import open_store


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Wash house", sheet="fl7-u")).id


def wanted(view: IntakeView, **change: object) -> NewIntake:
    whole = {
        "intake_revision": view.intake_revision,
        "machine": view.job.machine,
        "place": view.job.place,
        "sheet": view.job.sheet,
        "complaint": view.complaint,
        "plate": view.plate,
    }
    return NewIntake.model_validate(whole | change)


def test_an_intake_is_kept_and_readings_in_between_do_no_harm(context: Context, job: str) -> None:
    before = show_intake(context, job)
    logged(context, job, "outlet 229")
    complaint = Complaint(words="cold", symptoms=(Symptom.NO_HEAT,), alterations=(Alteration(words="cut wire"),))
    plate = DataPlate(type_number="X-7/2", serial="S-1", volts=230.0, variants="pump: grey plug")
    after = keep_intake(context, job, wanted(before, complaint=complaint, plate=plate, place="Boathouse"))
    assert (after.complaint, after.plate, after.job.place) == (complaint, plate, "Boathouse")
    assert show_intake(replace(context, at_hand={}), job) == after
    assert after.van.parts[0].title == "Heater"


def test_the_second_writer_of_an_intake_is_told_and_nothing_is_stored(context: Context, job: str) -> None:
    first = show_intake(context, job)
    kept = keep_intake(context, job, wanted(first, complaint=Complaint(words="one")))
    with pytest.raises(StaleRevisionError) as caught:
        keep_intake(context, job, wanted(first, complaint=Complaint(words="two")))
    assert caught.value.current == kept.intake_revision
    assert show_intake(context, job) == kept
    keep_intake(context, job, wanted(kept, complaint=Complaint(words="two")))


@pytest.mark.parametrize(
    ("change", "says"),
    [({"plate": DataPlate(volts=2300.0)}, "2300 V"), ({"sheet": "fl8-u"}, "did you mean fl7-u")],
)
def test_an_impossible_intake_stores_nothing(context: Context, job: str, change: dict[str, object], says: str) -> None:
    before = show_intake(context, job)
    with pytest.raises(InputError, match=says):
        keep_intake(context, job, wanted(before, **change))
    assert show_intake(context, job) == before


def test_a_known_machine_brings_its_plate_and_its_visits(context: Context, job: str) -> None:
    view = show_intake(context, job)
    keep_intake(context, job, wanted(view, plate=DataPlate(serial="S-1")))
    prove_dead(context, job)
    logged(context, job, "pump OL")
    again = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="wash HOUSE", sheet=""))
    seen = show_intake(context, again.id)
    assert (seen.plate.serial, again.machine_id) == ("S-1", view.job.machine_id)
    assert [(visit.id, visit.found) for visit in seen.visits] == [(job, ["Drain pump, coil: OL"])]
    other = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Boathouse", sheet="fl7-u"))
    assert other.machine_id != again.machine_id
    with pytest.raises(UnknownNameError, match="no machine sheet ''"):
        open_job(context, NewJob(id=uuid4(), machine="New", place="Boathouse", sheet=""))
    assert [row.name for row in list_machines(context)] == ["Machine 9", "Machine 9"]


def test_every_word_that_was_written_finds_the_job(context: Context, job: str) -> None:
    other = open_job(context, NewJob(id=uuid4(), machine="Other", place="Else", sheet="fl7-u"))
    happened(context, job, Checked(check="strike", outcome=CheckOutcome.BAD, words="crooked hook"))
    logged(context, job, "outlet 229.5")
    for find in ("CROOKED", "229.5", "machine 9 wash", "front-loader hook"):
        assert [row.id for row in every_job(context, find)] == [job], find
    assert every_job(context, "crooked else") == []
    assert {row.id for row in every_job(context, "")} == {job, other.id}


@pytest.mark.parametrize(
    ("body", "says"),
    [
        (Opened(panel="rear"), "no panel 'rear' on this machine"),
        (StepTicked(step="discharge9"), "did you mean 'discharge1'"),
        (Checked(check="strikes", outcome=CheckOutcome.GOOD), "did you mean 'strike'"),
        (EntryTried(sequence="x", is_in=True), "no sequence 'x'"),
        (CycleTicked(cycle="self_test", step="locks", outcome=Outcome.PASSED), "did you mean 'lock'"),
        (CodesRead(scheme="lamps", codes=("256",)), "cannot be shown by lamps"),
        (CodesRead(scheme="lamp", codes=()), "did you mean 'lamps'"),
    ],
)
def test_events_that_name_nothing_are_refused_and_not_stored(context: Context, job: str, body: Body, says: str) -> None:
    with pytest.raises(OhmcensusError, match=says):
        happened(context, job, body)
    assert revision(context, job) == 1


def test_an_event_sent_twice_is_one_event(context: Context, job: str) -> None:
    new = NewEvent(id=uuid4(), revision=1, body=PluggedIn())
    assert record_event(context, job, new) == record_event(context, job, new)
    with pytest.raises(InputError, match="belongs to another event"):
        record_event(context, job, NewEvent(id=new.id, revision=2, body=Reopened()))
    with pytest.raises(StaleRevisionError):
        record_event(context, job, NewEvent(id=uuid4(), revision=1, body=PluggedIn()))


def test_an_ended_job_takes_nothing_until_it_is_reopened(context: Context, job: str) -> None:
    assert happened(context, job, Ended(why="socket dead")).ended == "socket dead"
    for write in (
        lambda: logged(context, job, "outlet 229"),
        lambda: happened(context, job, PluggedIn()),
        lambda: keep_intake(context, job, wanted(show_intake(context, job))),
        lambda: keep_photo(context, job, NewPhoto(uuid4(), "plate", "p.png", png())),
    ):
        with pytest.raises(InputError, match="this job has ended: reopen it"):
            write()
    assert happened(context, job, Reopened()).ended is None
    logged(context, job, "outlet 229")


def test_the_proof_is_told_step_by_step(context: Context, job: str) -> None:
    assert show_safe(context, job).sentence.startswith("Cut it off first")
    prove_dead(context, job)
    view = show_safe(context, job)
    assert [point.is_good for point in view.points] == [True] * 6
    assert (view.job.safety, view.points[1].reads) == ("dead", "200 mV")
    later = replace(context, clock=lambda: context.clock() + timedelta(minutes=11))
    assert show_safe(later, job).sentence == "No longer proved dead: ten minutes unattended."
    with pytest.raises(SafetyRefusalError, match="not proved dead"):
        log_reading(later, job, NewReading(id=uuid4(), revision=revision(context, job), text="heater 25"))


def test_voltage_left_is_named(context: Context, job: str) -> None:
    prove_dead(context, job)
    logged(context, job, "dead filter 34")
    view = show_safe(context, job)
    assert view.sentence == "Hands off: voltage at Mains filter, X-capacitor: 34 V. Cut it off, find why, discharge."
    assert view.job.power.shout == "voltage at Mains filter, X-capacitor: 34 V"
    assert [point.is_good for point in view.points if point.id == "dead.filter"] == [False]


def png() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (30, 20), "white").save(out, "PNG")
    return out.getvalue()


def test_a_photo_is_kept_once_by_its_content_and_can_be_taken_out(context: Context, job: str) -> None:
    photo_id = uuid4()
    for _ in range(2):
        kept = keep_photo(context, job, NewPhoto(photo_id, "plate", "p.png", png()))
    twin = keep_photo(context, job, NewPhoto(uuid4(), "plate", "again.png", png()))
    other = keep_photo(context, job, NewPhoto(uuid4(), "found", "again.png", png()))
    assert (len(kept), len(twin), len(other)) == (1, 1, 2)
    assert len(list((context.store.folder / "photos").rglob("*.jpg"))) == 2
    name = kept[0].address.rsplit("/", 1)[1]
    assert find_picture(context, name).is_file()
    assert [row.id for row in remove_photo(context, job, str(photo_id))] == [other[1].id]
    for bad in ("../ohmcensus.db", "0" * 64 + ".jpg", name.replace(".jpg", "-small-small.jpg")):
        with pytest.raises(NotFoundError):
            find_picture(context, bad)
    with pytest.raises(NotFoundError):
        remove_photo(context, job, str(uuid4()))


def test_codes_are_decoded_coached_and_given_meanings(context: Context, job: str) -> None:
    found = decode(context, job, Pattern(scheme="lamps", pattern="01001010"))
    assert (found.code, found.words) == ("74", "Water did not get warmer")
    assert decode(context, job, Pattern(scheme="halves", code="none")).is_nothing
    with pytest.raises(InputError, match="one of pattern and code"):
        decode(context, job, Pattern(scheme="lamps"))
    with pytest.raises(UnknownNameError, match="no scheme 'x'"):
        decode(context, job, Pattern(scheme="x", code="1"))
    assert coach(context, job, Clicks(sequence="service_mode", clicks=[])).of == 8
    with pytest.raises(UnknownNameError, match="no sequence"):
        coach(context, job, Clicks(sequence="x", clicks=[Click(direction="left", at_s=0.0)]))
    happened(context, job, CodesRead(scheme="lamps", codes=("074", "8")))
    keep_meanings(context, "fl7-u", "lamps", Meanings(rows=[Meaning(code="8", words="Ours", suspects={"ntc": 0.5})]))
    read = show_codes(context, job).read[0]
    assert [(row.code, row.words) for row in read.codes] == [("74", ""), ("8", "Ours")]
    with pytest.raises(InputError, match="stands twice"):
        keep_meanings(context, "fl7-u", "lamps", Meanings(rows=[Meaning(code="8", words="a")] * 2))
    with pytest.raises(UnknownNameError, match="no scheme 'x' on this sheet"):
        keep_meanings(context, "fl7-u", "x", Meanings(rows=[]))


def test_a_copied_sheet_is_ones_own(context: Context, job: str) -> None:
    copied = copy_sheet(context, SheetCopy(of="fl7-u", title="Our Front-Loader, 2nd"))
    assert (copied.id, copied.is_own) == ("our-front-loader-2nd", True)
    assert [row.id for row in list_sheets(context)][-1] == copied.id
    for title in ("Our front loader 2nd", "?!"):
        with pytest.raises(InputError, match="choose another title"):
            copy_sheet(context, SheetCopy(of="fl7-u", title=title))
    after = keep_intake(context, job, wanted(show_intake(context, job), sheet=copied.id))
    assert (after.job.sheet, after.job.sheet_title) == (copied.id, "Our Front-Loader, 2nd")
    logged(context, job, "heater loose 25.9")


def test_the_address_book_refuses_doubles_and_strangers(context: Context, job: str) -> None:
    assert job
    place = next(row for row in show_addresses(context).entries if row.kind is AddressKind.PLACE)
    with pytest.raises(InputError, match="there is a place 'wash house' already"):
        keep_address(context, Address(id=uuid4(), kind=AddressKind.PLACE, name="wash house"))
    with pytest.raises(InputError, match="is a place"):
        keep_address(context, Address(id=place.id, kind=AddressKind.CUSTOMER, name="Marina"))
    with pytest.raises(InputError, match="choose a customer"):
        keep_address(context, place.model_copy(update={"customer_id": UUID(int=1)}))
    owner = keep_address(context, Address(id=uuid4(), kind=AddressKind.CUSTOMER, name="Marina"))
    keep_address(context, place.model_copy(update={"customer_id": owner.id, "is_archived": True}))
    assert every_job(context)[0].customer == "Marina"
    assert list_machines(context) == []


def store_of_before(folder: Path) -> None:
    """Make a store of version 0005: a job that goes on and one that ended, with a reading and a step each."""
    import sqlite3  # noqa: PLC0415

    from alembic import command  # noqa: PLC0415
    from sqlalchemy import create_engine  # noqa: PLC0415

    from ohmcensus.core.meter import generic_meter  # noqa: PLC0415
    from ohmcensus.storage.database import FILE_NAME  # noqa: PLC0415
    from ohmcensus.storage.migrate import config_for  # noqa: PLC0415

    engine = create_engine(f"sqlite:///{folder / FILE_NAME}")
    command.upgrade(config_for(engine), "0005")
    engine.dispose()
    meter, at = generic_meter("multimeter-6000").model_dump_json(), "2026-06-01T10:00:00Z"
    with sqlite3.connect(folder / FILE_NAME) as old:
        old.execute("INSERT INTO address VALUES ('p', 'place', 'Quay', '', '', NULL, 0)")
        machine = "INSERT INTO machine (id, sheet_id, name, place_id, plate) VALUES ('m', 'fl7-u', 'M 9', 'p', ?)"
        old.execute(machine, ('{"serial": "S-1"}',))
        for job, end in (("j", False), ("k", True)):
            columns = "id, intake_revision, machine_id, complaint, opened_at, changed_at, revision, unknown_keys"
            told = (job, 1, "m", '{"words": "cold"}', at, at, 4, "{}")
            old.execute(f"INSERT INTO job ({columns}) VALUES (?, ?, ?, ?, ?, ?, ?, ?)", told)  # noqa: S608
            body = '{"kind": "strip_step", "words": "back panel", "fasteners": 4, "panel": "back", "minutes": 9.0}'
            old.execute("INSERT INTO event VALUES (?, ?, 3, ?, ?, 'A', '')", (f"e{job}", job, body, at))
            if end:
                why = '{"kind": "ended", "why": "no time left"}'
                old.execute("INSERT INTO event VALUES (?, ?, 4, ?, ?, 'A', '')", (f"f{job}", job, why, at))
            old.execute(
                "INSERT INTO reading VALUES (?, ?, 2, 'outlet.ln', 'outlet.l', 'outlet.n', 'volts_ac', ?, 'outlet 229',"
                " 229.0, 'volt', 'exact', 1.0, 20.0, '{}', 'inside', 'inside', ?, 'A', NULL, 0)",
                (f"r{job}", job, meter, at),
            )
    old.close()


def test_a_store_of_the_version_before_keeps_readings_events_and_what_they_are_found_by(tmp_path: Path) -> None:
    store_of_before(tmp_path)
    store = open_store(tmp_path)
    context = Context(store)
    going, ended = list_jobs(context), list_jobs(context, JobsQuery(ended=True))
    assert ([row.id for row in going.jobs], [row.id for row in ended.jobs]) == (["j"], ["k"])
    for word in ("229", "back", "cold", "quay"):
        assert [row.id for row in every_job(context, word)] == ["j", "k"], word
    with store.read() as session:
        case = take(context, session, "j").case
        assert (case.readings[0].meter.id, case.timed["back"].jobs) == ("multimeter-6000", 1)
        assert [row.id for row in jobs.of_serial(session, "S-1")] == ["j", "k"]
    assert show_sheet_out(context, "k").signed
    assert (tmp_path / "before-0007.db").exists()
    store.close()


def test_an_older_store_keeps_its_places_complaints_and_serials(tmp_path: Path) -> None:
    import sqlite3  # noqa: PLC0415

    from alembic import command  # noqa: PLC0415
    from sqlalchemy import create_engine  # noqa: PLC0415

    from ohmcensus.storage.database import FILE_NAME  # noqa: PLC0415
    from ohmcensus.storage.migrate import config_for  # noqa: PLC0415

    engine = create_engine(f"sqlite:///{tmp_path / FILE_NAME}")
    command.upgrade(config_for(engine), "0001")
    engine.dispose()
    with sqlite3.connect(tmp_path / FILE_NAME) as old:
        old.execute("INSERT INTO machine VALUES ('m', 'fl7-u', 'Machine 9', 'Wash house', 'S-1')")
        old.execute("INSERT INTO job VALUES ('j', 'm', 'cold water', '2026-06-01T10:00:00Z', 't', 1, 'dead', 't', '')")
    old.close()
    store = open_store(tmp_path)
    context = Context(store)
    found = show_job(context, every_job(context)[0].id)
    store.close()
    assert (found.place, found.serial, found.complaint) == ("Wash house", "S-1", "cold water")
    assert found.safety == "not_proved"
