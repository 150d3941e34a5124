"""A job out and in again is the same job; what is no job comes in not even by half."""

from __future__ import annotations

import io
import json
import math
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import pytest
from PIL import Image
from sqlmodel import select
from tests.noon import NOON
from tests.seeded import DEMO_JOBS, new_store, with_demo
from tests.working import every_job, happened, job_on, logged

from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.event import Changed, ConnectorNoted, Ended, Intervention, Isolated, StripStep
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import NewPhoto, find_picture, keep_photo
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.setup.keep_meter import NewMeter, keep_meter, show_meters
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.shelf.keep_wanted import NewOffer, NewWanted, keep_wanted
from ohmcensus.services.transfer.export_job import export_job, export_text, job_file
from ohmcensus.services.transfer.import_job import import_file
from ohmcensus.storage.tables import JobRow


@pytest.fixture
def other(tmp_path: Path) -> Iterator[Context]:
    """Another data directory, empty."""
    store = new_store(tmp_path / "other")
    yield Context(store, clock=lambda: NOON)
    store.close()


def picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (60, 40), "navy").save(out, "JPEG")
    return out.getvalue()


@pytest.fixture
def job(context: Context) -> str:
    """A job with everything that a job can hold."""
    job_id = open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id
    logged(context, job_id, "outlet 229")
    meter = show_meters(context)[0].model_copy(update={"id": "mine", "title": "Mine", "serial": "OC-T1"})
    keep_meter(context, NewMeter(**meter.model_dump()))
    logged(context, job_id, "outlet 230")
    keep_meter(context, NewMeter(**meter.model_dump() | {"serial": "OC-T2", "revision": 1}))
    logged(context, job_id, "outlet 231")
    happened(context, job_id, StripStep(words="back panel", fasteners=4, panel="back"))
    step = show_repair(context, job_id).strip.steps[0].id
    keep_photo(context, job_id, NewPhoto(uuid4(), "step", "a.jpg", picture(), event=step))
    plug = keep_photo(context, job_id, NewPhoto(uuid4(), "connector", "b.jpg", picture()))[-1]
    happened(context, job_id, ConnectorNoted(photo=plug.id, words="Heater plug"))
    happened(context, job_id, Changed(part="heater", intervention=Intervention.REPLACED))
    wish = NewWanted(part="heater", offers=[NewOffer(source="Quay store", price="38.50")])
    keep_wanted(context, job_id, uuid4(), wish)
    happened(context, job_id, Isolated())
    happened(context, job_id, Ended(why="no time left", is_labelled_unsafe=True))
    return job_id


def test_an_archive_out_and_in_is_the_same_job_photos_included(
    context: Context, other: Context, job: str, tmp_path: Path
) -> None:
    file = tmp_path / "job.zip"
    export_job(context, job, file)
    found = import_file(other, file)
    assert (found.jobs, found.photos) == ((job,), 2)
    assert job_file(other, job) == job_file(context, job)
    photo = show_repair(other, job).strip.steps[0].photos[0]
    assert find_picture(other, photo.address.rsplit("/", 1)[1]).read_bytes() == (
        find_picture(context, photo.address.rsplit("/", 1)[1]).read_bytes()
    )
    assert find_picture(other, photo.small.rsplit("/", 1)[1]).is_file()
    assert import_file(other, file).already == (job,)
    with zipfile.ZipFile(file) as archive:
        assert {name.partition("/")[2] for name in archive.namelist()} >= {"readings.csv", "job-sheet.pdf", "label.pdf"}


def test_every_demo_job_comes_back_from_its_json_and_all_from_one_archive(
    context: Context, other: Context, tmp_path: Path
) -> None:
    with_demo(context)
    keep_settings(other, show_settings(context))
    for row in every_job(context):
        file = tmp_path / f"{row.id}.json"
        export_job(context, row.id, file)
        if not job_file(context, row.id).photos:
            assert import_file(other, file).jobs == (row.id,)
    export_job(context, "all", tmp_path / "all.zip")
    found = import_file(other, tmp_path / "all.zip")
    assert len(found.jobs) + len(found.already) == len(every_job(context))
    for row in every_job(context):
        came, went = job_file(other, row.id), job_file(context, row.id)
        assert came.safety.state == "not_proved", "nobody knows how the machine of a file stands"
        assert came == went.model_copy(update={"safety": came.safety})


def test_keys_that_are_not_known_are_kept(context: Context, other: Context, job: str, tmp_path: Path) -> None:
    raw = json.loads(export_text(context, job, "json")) | {"weather": {"wind": 5}, "photos": []}
    raw["events"] = [row for row in raw["events"] if row["body"]["kind"] != "connector_noted"]
    (tmp_path / "job.json").write_text(json.dumps(raw), encoding="utf-8")
    import_file(other, tmp_path / "job.json")
    assert json.loads(export_text(other, job, "json"))["weather"] == {"wind": 5}


Raw = dict[str, Any]


def _with(**more: Any) -> Callable[[Raw], Raw]:
    """Return how to spoil a file that names no photos."""
    return lambda raw: raw | {"photos": []} | more


def _events(**more: Any) -> Callable[[Raw], Raw]:
    """Return how to spoil what came off."""

    def spoil(raw: Raw) -> Raw:
        rows = [row for row in raw["events"] if row["body"]["kind"] != "connector_noted"]
        off = [row | {"body": row["body"] | more} if row["body"]["kind"] == "strip_step" else row for row in rows]
        return raw | {"photos": [], "events": off}

    return spoil


def _history(**more: Any) -> Callable[[Raw], Raw]:
    return lambda raw: raw | {"photos": [], "history": [row | more for row in raw["history"]]}


@pytest.mark.parametrize(
    ("spoil", "said"),
    [
        (_with(format="ohmcensus-job/2"), r"of a newer kind \(ohmcensus-job/2, this one knows"),
        (_with(events=[{"id": 1}]), r"not an exported job \(events\.0"),
        (_with(sheet="zz9"), "no machine sheet 'zz9'"),
        (_with(id="../../etc"), "is not an id of a job"),
        (_with(own_sheet={"id": "fl7-u"}), "the machine sheet in the file is none"),
        (_history(between=None), "lacks its points or its meter"),
        (_history(unit="furlong"), "'furlong' is not a valid Unit"),
        (dict, "names 2 photos that it does not hold: take the archive"),
        (_history(last_place=math.inf), "not an exported job"),
        (_history(value=math.nan), "not an exported job"),
        (_history(order=2**63), "not an exported job"),
        (_history(at="2026-01-05T08:00:00"), "lacks its time zone"),
        (_history(at="yesterday"), "not an exported job"),
        (_history(bound="about"), "'about' is not a valid Bound"),
        (_history(function="taste"), "'taste' is not a valid Function"),
        (_with(plate={"watts": 5e-324}), "cannot be taken in|not an exported job"),
        (_with(intake_revision=2**70), "not an exported job"),
        (_with(opened_at="2026-01-05"), "lacks its time zone"),
        (_events(plugs=["no_such_plug"]), "cannot be taken in|does not fit"),
    ],
    ids=[
        *("newer", "no event", "unknown sheet", "odd id", "no sheet", "too old", "unit", "photos"),
        *(
            "infinity",
            "nan",
            "order",
            "no zone",
            "no moment",
            "bound",
            "function",
            "plate",
            "revision",
            "opened",
            "plug",
        ),
    ],
)
def test_what_is_no_job_is_refused_and_nothing_is_written(
    context: Context, other: Context, job: str, tmp_path: Path, spoil: Callable[[Raw], Raw], said: str
) -> None:
    raw = json.loads(export_text(context, job, "json"))
    (tmp_path / "job.json").write_text(json.dumps(spoil(raw)), encoding="utf-8")
    with pytest.raises(OhmcensusError, match=said):
        import_file(other, tmp_path / "job.json")
    assert every_job(other) == []


@pytest.mark.usefixtures("job")
def test_one_bad_job_keeps_the_whole_archive_out(context: Context, other: Context, tmp_path: Path) -> None:
    second = open_job(context, NewJob(id=uuid4(), machine="Machine 10", place="Pier", sheet="fl7-u")).id
    whole, spoilt = tmp_path / "all.zip", tmp_path / "spoilt.zip"
    export_job(context, "all", whole)
    with zipfile.ZipFile(whole) as source, zipfile.ZipFile(spoilt, "w") as target:
        for name in source.namelist():
            body = source.read(name)
            target.writestr(name, body.replace(b'"fl7-u"', b'"zz9"') if name == f"{second}/job.json" else body)
    with pytest.raises(OhmcensusError, match="zz9"):
        import_file(other, spoilt)
    assert every_job(other) == []


def test_an_id_that_another_job_has_keeps_the_file_out(context: Context, tmp_path: Path) -> None:
    with_demo(context)
    raw = json.loads(export_text(context, job_on(context, "Machine 1"), "json"))
    (tmp_path / "twin.json").write_text(json.dumps(raw | {"id": str(uuid4()), "history": [], "events": []}))
    with pytest.raises(InputError, match="holds an id twice, or one that another job here has"):
        import_file(context, tmp_path / "twin.json")
    assert len(every_job(context)) == DEMO_JOBS


def _zip(path: Path, **files: bytes) -> Path:
    with zipfile.ZipFile(path, "w") as out:
        for name, body in files.items():
            out.writestr(name.replace("__", "/"), body)
    return path


@pytest.mark.parametrize(
    ("make", "said"),
    [
        (lambda path: _zip(path, **{"readme.txt": b"hello"}), "is not an archive of jobs"),
        (lambda path: _zip(path, **{"archive.json": b'{"format": "ohmcensus-archive/7"}'}), "of a newer kind"),
        (
            lambda path: _zip(path, **{"archive.json": b'{"format": "ohmcensus-archive/1"}', "..__..__x": b""}),
            "holds what no archive does",
        ),
        (lambda path: path.write_bytes(b"PK\x03\x04 cut off"), "cannot be read"),
    ],
    ids=["foreign", "newer", "climbs out", "cut off"],
)
def test_what_is_no_archive_is_refused(other: Context, tmp_path: Path, make: Any, said: str) -> None:
    make(tmp_path / "in.zip")
    with pytest.raises(InputError, match=said):
        import_file(other, tmp_path / "in.zip")


def test_a_photo_that_is_missing_or_damaged_is_told(context: Context, other: Context, job: str, tmp_path: Path) -> None:
    export_job(context, job, tmp_path / "job.zip")
    for spoilt, said in ((None, "the archive lacks the photo"), (b"xx", "is damaged")):
        target = tmp_path / "spoilt.zip"
        with zipfile.ZipFile(tmp_path / "job.zip") as source, zipfile.ZipFile(target, "w") as out:
            for name in source.namelist():
                if not name.endswith(".jpg"):
                    out.writestr(name, source.read(name))
                elif spoilt is not None:
                    out.writestr(name, spoilt)
        with pytest.raises(InputError, match=said):
            import_file(other, target)


@pytest.mark.parametrize(
    ("name", "said"),
    [("job.csv", "holds readings alone, no whole job"), ("job.doc", "is of no kind that holds a job")],
)
def test_other_endings_are_refused(other: Context, tmp_path: Path, name: str, said: str) -> None:
    (tmp_path / name).write_text("x", encoding="utf-8")
    with pytest.raises(InputError, match=said):
        import_file(other, tmp_path / name)


def test_a_job_that_went_on_here_is_not_written_over(context: Context, job: str, tmp_path: Path) -> None:
    export_job(context, job, tmp_path / "job.zip")
    with context.store.write() as session:
        row = session.exec(select(JobRow).where(JobRow.id == job)).one()
        row.changed_at = "2026-06-02T00:00:00Z"
    context.at_hand.clear()
    with pytest.raises(InputError, match=r"already, at revision \d+; the file has \d+: import it"):
        import_file(context, tmp_path / "job.zip")


def test_all_jobs_go_only_into_an_archive(context: Context, job: str, tmp_path: Path) -> None:
    with pytest.raises(InputError, match=r"all jobs go into one archive: name the file \.zip"):
        export_job(context, "all", tmp_path / "all.json")
    assert UUID(job)


def test_what_was_signed_once_is_shown_with_every_revision(context: Context, job: str) -> None:
    view = show_sheet_out(context, job)
    assert (view.is_signed, view.can_label, len(view.revisions)) == (True, True, 1)
    assert view.total == "73.50", "a visit of 35 and the part of 38.50; the clock stood still"
