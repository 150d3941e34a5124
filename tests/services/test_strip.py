"""The strip-down of a stored job: photos of its steps, its connectors, and the minutes that it teaches."""

from __future__ import annotations

import io
from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from uuid import UUID, uuid4

import pytest
from PIL import Image
from tests.working import happened, revision

from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.errors import InputError, NotFoundError
from ohmcensus.core.event import ConnectorNoted, Isolated, PinMark, StripStep
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import MOST_PHOTOS, NewPhoto, keep_photo, remove_photo
from ohmcensus.services.repair.show_repair import RepairQuery, show_repair
from ohmcensus.storage import photos
from ohmcensus.storage.tables import PhotoRow

BACK = StripStep(words="back panel", fasteners=4, panel="back")


@pytest.fixture
def job(context: Context) -> str:
    return new_job(context, "Machine 9")


def new_job(context: Context, machine: str) -> str:
    return open_job(context, NewJob(id=uuid4(), machine=machine, place="Pier", sheet="fl7-u")).id


def picture(shade: int = 0) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (60, 40), (shade, 90, 90)).save(out, "JPEG")
    return out.getvalue()


def step(context: Context, job: str, body: StripStep = BACK) -> str:
    happened(context, job, body)
    return show_repair(context, job).strip.steps[-1].id


def test_a_step_shows_its_photos_and_a_connector_its_pins(context: Context, job: str) -> None:
    keep_photo(context, job, NewPhoto(uuid4(), "step", "back.jpg", picture(), event=step(context, job)))
    plug = keep_photo(context, job, NewPhoto(uuid4(), "connector", "plug.jpg", picture(9)))[-1]
    strip = show_repair(context, job).strip
    assert ([len(row.photos) for row in strip.steps], [row.id for row in strip.loose]) == ([1], [plug.id])
    pins = (PinMark(number=1, x=0.2, y=0.5, label="L", colour="brown"), PinMark(number=2, x=0.6, y=0.5, is_empty=True))
    happened(context, job, ConnectorNoted(photo=plug.id, words="Heater plug", plug="heater_tags", pins=pins))
    strip = show_repair(context, job).strip
    assert (strip.loose, strip.connectors[0].pins, strip.connectors[0].plug) == ([], list(pins), "Both heater tags")
    with pytest.raises(InputError, match="a connector is marked on this photo: take the connector back first"):
        remove_photo(context, job, plug.id)


@pytest.mark.parametrize(
    ("new", "said"),
    [
        (lambda: NewPhoto(uuid4(), "step", "a.jpg", picture()), "is of no step of the job: note the step first"),
        (lambda: NewPhoto(uuid4(), "step", "a.jpg", picture(), event="e1"), "is of no step of the job"),
        (
            lambda: NewPhoto(uuid4(), "found", "a.svg", b"<svg xmlns='http://www.w3.org/2000/svg'/>"),
            "a.svg is not a pic",
        ),
        (lambda: NewPhoto(uuid4(), "found", "a.pdf", b"%PDF-1.7 ..."), "a.pdf is not a picture that can be read"),
        (lambda: NewPhoto(uuid4(), "found", "half.jpg", picture()[:300]), "half.jpg is not a picture that can be read"),
    ],
    ids=["no step", "unknown step", "SVG", "PDF", "cut off on its way"],
)
def test_what_is_no_photo_of_the_job_is_refused_and_nothing_is_kept(
    context: Context, job: str, new: Callable[[], NewPhoto], said: str
) -> None:
    before = revision(context, job)
    with pytest.raises(InputError, match=said):
        keep_photo(context, job, new())
    assert revision(context, job) == before
    assert not list((context.store.folder / "photos").rglob("*.jpg"))


def test_a_folder_of_photos_dropped_by_mistake_stops_at_three_hundred(context: Context, job: str) -> None:
    with context.store.write() as session:
        for number in range(MOST_PHOTOS):
            photos.append(session, _row(job, number))
    with pytest.raises(InputError, match="this job has 300 photos already: take some out first"):
        keep_photo(context, job, NewPhoto(uuid4(), "found", "one.jpg", picture()))


def _row(job: str, number: int) -> PhotoRow:
    return PhotoRow(
        id=str(UUID(int=number)),
        job_id=job,
        revision=1,
        role="found",
        content=f"{number:064x}",
        width=6,
        height=4,
        at="2026-06-01T12:00:00Z",
        who="",
    )


def test_power_that_fails_while_a_photo_is_written_leaves_no_row_and_no_half_picture(
    context: Context, job: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    def cut(_: int) -> None:
        raise OSError(5, "the disk is gone")

    new = NewPhoto(uuid4(), "found", "one.jpg", picture())
    with monkeypatch.context() as broken:
        broken.setattr("os.fsync", cut)
        with pytest.raises(OSError, match="the disk is gone"):
            keep_photo(context, job, new)
    assert not list((context.store.folder / "photos").rglob("*.jpg"))
    photos.sweep(context.store.folder)
    assert len(list((context.store.folder / "photos").rglob("*.part"))) == 1, "somebody may be writing it right now"
    assert len(keep_photo(context, job, new)) == 1


def test_a_connector_without_its_photo_is_refused(context: Context, job: str) -> None:
    with pytest.raises(NotFoundError, match="no such photo on this job: take the photo first"):
        happened(context, job, ConnectorNoted(photo="p1", words="Heater plug"))


def test_minutes_of_a_cover_come_from_the_clock_and_teach_the_next_job(context: Context, job: str) -> None:
    happened(context, job, Isolated())
    later = replace(context, clock=lambda: context.clock() + timedelta(minutes=9))
    sent = NewEvent(id=uuid4(), revision=revision(context, job), body=BACK)
    record_event(later, job, sent)
    record_event(later, job, sent)
    assert [row.minutes for row in show_repair(context, job).strip.steps] == ["9 min"], "sent twice, stored once"
    other = new_job(context, "Machine 10")
    assert "Back panel (6 min, timed on 1 job)" in [row.words for row in show_repair(context, other).strip.panels]
    with context.store.read() as session:
        at_hand = take(context, session, other)
    reach = reach_of(at_hand.case, at_hand.lines, at_hand.safety(context.clock()))
    assert reach.cover_minutes["back"] == pytest.approx((2 * 4 + 9) / 3)


def test_tricks_come_from_the_kind_of_part(context: Context, job: str) -> None:
    heater = next(row for row in show_repair(context, job).strip.tricks if row.part == "heater")
    assert "clip" in " ".join(heater.tricks)
    assert "clamp nut" in " ".join(heater.tools)


def test_the_plan_knows_what_held_it_on_an_earlier_job_of_the_type(context: Context, job: str) -> None:
    other = new_job(context, "Machine 10")
    assert [row.told for row in show_repair(context, other, RepairQuery(part="heater")).plan.steps] == [False] * 3
    step(context, job, StripStep(words="Back panel off", fasteners=6, head="cross", kept="blue lid", panel="back"))
    plan = show_repair(context, other, RepairQuery(part="heater")).plan
    assert (plan.title, plan.told, plan.repair) == ("Heater", 1, "replace the heater")
    proposal = plan.steps[0].proposal
    assert (proposal.fasteners, proposal.head, proposal.kept) == (6, "cross", "blue lid")
    assert [row.state for row in plan.steps] == ["to_do"] * 3
    step(context, other, proposal)
    after = show_repair(context, other, RepairQuery(part="heater")).plan
    assert [row.state for row in after.steps] == ["off", "to_do", "to_do"]
    assert after.steps[0].step
    other_type = open_job(context, NewJob(id=uuid4(), machine="M", place="Pier", sheet="wd8-h")).id
    assert show_repair(context, other_type, RepairQuery(part="heater")).plan.told == 0
    with pytest.raises(InputError, match="boiler"):
        show_repair(context, job, RepairQuery(part="boiler"))


def test_the_plan_shows_how_a_step_looked_on_an_earlier_job(context: Context, job: str) -> None:
    photo = uuid4()
    keep_photo(context, job, NewPhoto(photo, "step", "panel.jpg", picture(), event=step(context, job)))
    other = new_job(context, "Machine 8")

    def seen() -> list[str]:
        rows = show_repair(context, other, RepairQuery(part="heater")).plan.steps
        return [row.id for row in rows if row.before is not None]

    assert seen() == ["back"]
    assert all(row.before is None for row in show_repair(context, job, RepairQuery(part="heater")).plan.steps)
    remove_photo(context, job, str(photo))
    assert seen() == []
