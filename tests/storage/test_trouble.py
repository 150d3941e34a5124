"""A disk that is full, read-only or damaged, and a store that somebody else writes: one sentence, nothing half."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Hashable, Iterator
from contextlib import closing, contextmanager
from dataclasses import replace
from datetime import timedelta
from pathlib import Path
from uuid import uuid4

import pytest
from sqlalchemy import event
from tests.seeded import with_demo
from tests.services.test_strip import picture
from tests.working import every_job, happened, logged

from ohmcensus.core.errors import InputError, NotFoundError, StoreError, Trouble
from ohmcensus.core.event import Ended, Isolated, Reopened
from ohmcensus.services.at_hand.beside import Beside, Work
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import NewPhoto, find_picture, keep_photo, remove_photo
from ohmcensus.services.upkeep.check_data import check_data
from ohmcensus.services.upkeep.look_after import back_up, look_after, newest_backup, purge_photos, show_health
from ohmcensus.storage.check import damage_of
from ohmcensus.storage.database import FILE_NAME, open_store
from ohmcensus.web.app import create_app


@contextmanager
def pragma(context: Context, setting: str) -> Iterator[None]:
    """Let every connection of a store have a setting of SQLite."""
    engine = context.store._engine
    engine.dispose()

    def on_connect(connection: sqlite3.Connection, _record: object) -> None:
        connection.execute(f"PRAGMA {setting}")

    event.listen(engine, "connect", on_connect)
    yield
    event.remove(engine, "connect", on_connect)
    engine.dispose()


def pages(context: Context) -> int:
    with closing(sqlite3.connect(context.store.file)) as file:
        return int(file.execute("PRAGMA page_count").fetchone()[0])


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


def filled(context: Context, job: str) -> None:
    for number in range(200):
        logged(context, job, f"outlet {220 + number % 20}")


CREATED = 201


@pytest.mark.parametrize(
    ("setting", "trouble", "says", "status"),
    [
        ("max_page_count={pages}", Trouble.FULL, "the disk is full", 507),
        ("query_only=ON", Trouble.READ_ONLY, "cannot be written", 507),
    ],
)
def test_what_cannot_be_written_is_told_and_goes_on_once_it_can(
    context: Context, job: str, setting: str, trouble: Trouble, says: str, status: int
) -> None:
    client = create_app(context).test_client()
    new = {"id": str(uuid4()), "machine": "x" * 100, "place": "Pier", "sheet": "fl7-u"}
    with pragma(context, setting.format(pages=pages(context))):
        with pytest.raises(StoreError, match=says) as refused:
            filled(context, job)
        filling = (new | {"id": str(uuid4()), "complaint": "y" * 1900} for _ in range(20))
        answers = (client.post("/api/jobs", json=body) for body in filling)
        answer = next(row for row in answers if row.status_code != CREATED)
        assert client.get(f"/api/jobs/{job}/trace").status_code == 200
    assert refused.value.trouble is trouble
    assert (answer.status_code, says in answer.get_json(force=True)["detail"]) == (status, True)
    assert client.post("/api/jobs", json=new).status_code == 201


def test_who_has_to_wait_too_long_is_told_when_to_come_again(context: Context, job: str) -> None:
    del job
    client = create_app(context).test_client()
    new = {"id": str(uuid4()), "machine": "M", "place": "Pier", "sheet": "fl7-u"}
    with pragma(context, "busy_timeout=50"), closing(sqlite3.connect(context.store.file)) as other:
        other.execute("BEGIN IMMEDIATE")
        answer = client.post("/api/jobs", json=new)
    assert (answer.status_code, answer.headers["Retry-After"]) == (503, "2")
    assert "try again" in answer.get_json(force=True)["detail"]
    assert client.post("/api/jobs", json=new).status_code == 201


def rot(file: Path, *, first: int = 5) -> None:
    """Fill some pages of a database with noise."""
    with file.open("r+b") as opened:
        for page in range(first, first + 12):
            opened.seek(page * 4096)
            opened.write(bytes((page * 7 + k) % 251 for k in range(4096)))


def spoiled(context: Context) -> Path:
    """Return a copy of a data directory whose database is damaged."""
    context.store.close()
    with closing(sqlite3.connect(context.store.file)) as file:
        file.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    rot(context.store.file)
    return context.store.folder


def test_a_damaged_database_is_noticed_at_the_start_and_by_check(context: Context) -> None:
    with_demo(context)
    folder = spoiled(context)
    assert damage_of(folder / FILE_NAME) != ""
    (problem, *_) = check_data(folder).problems
    assert "restore --aside" in problem
    fresh = Context(open_store(folder), beside=Now())
    look_after(fresh)
    health = show_health(fresh)
    assert (health.ok, "damaged" in health.warnings[0]) == (False, True)
    fresh.store.close()


class Now(Beside):
    """Does at once what is asked for beside; what comes again in an hour is left."""

    def __init__(self) -> None:
        """Begin no thread."""

    def ask(self, key: Hashable, work: Work, after_s: float = 0.0) -> None:
        if after_s < 100:
            try:
                work()
            except Exception:  # noqa: BLE001 - as the thread beside does
                del key


def test_a_missing_picture_is_named(context: Context) -> None:
    with_demo(context)
    picture = next((context.store.folder / "photos").rglob("*[0-9a-f].jpg"))
    picture.unlink()
    (problem,) = check_data(context.store.folder).problems
    assert picture.name[:12] in problem


def test_a_backup_a_day_is_kept_for_a_week(context: Context) -> None:
    with_demo(context)
    assert newest_backup(context.store.folder) is None
    for name in range(9):
        back_up(context).rename(context.store.folder / "backups" / f"ohmcensus-2026010{name}-000000.zip")
    back_up(context)
    assert len(list((context.store.folder / "backups").glob("*.zip"))) == 7
    assert check_data(context.store.folder).problems == ()


def test_compacting_gives_room_back_and_loses_nothing(context: Context, job: str) -> None:
    filled(context, job)
    before = every_job(context)
    context.store.close()
    assert check_data(context.store.folder, is_compact=True).problems == ()
    again = Context(open_store(context.store.folder), clock=context.clock)
    assert every_job(again) == before
    again.store.close()


def test_a_store_of_the_version_before_is_copied_before_it_is_brought_up(tmp_path: Path) -> None:
    open_store(tmp_path).close()
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as file:
        assert file.execute("SELECT count(*) FROM job_search").fetchone() == (0,)
    with pytest.raises(InputError, match="no data"):
        check_data(tmp_path / "nowhere")


def test_what_a_kill_left_half_written_goes_after_an_hour(context: Context) -> None:
    folder = context.store.folder
    old, fresh = folder / ".import-old", folder / ".import-fresh"
    for place in (old, fresh):
        place.mkdir()
        (place / "scratch.db").write_bytes(b"half")
    os.utime(old, (0, 0))
    look_after(replace(context, beside=Now()))
    assert (old.exists(), fresh.exists()) == (False, True)


def test_files_are_for_their_owner_alone(tmp_path: Path) -> None:
    folder = tmp_path / "data"
    store = open_store(folder)
    assert folder.stat().st_mode & 0o077 == 0
    store.close()


def test_a_removed_photo_goes_after_a_month_unless_something_signed_shows_it(context: Context, job: str) -> None:
    kept, gone = (
        keep_photo(context, job, NewPhoto(uuid4(), "found", "a.jpg", picture(shade)))[-1] for shade in (9, 90)
    )
    happened(context, job, Isolated())
    happened(context, job, Ended(why="Left as it is.", is_labelled_unsafe=True))
    happened(context, job, Reopened())
    late = keep_photo(context, job, NewPhoto(uuid4(), "found", "b.jpg", picture(200)))[-1]
    for photo in (gone, late):
        remove_photo(context, job, photo.id)
    assert purge_photos(context) == 0
    later = replace(context, clock=lambda: context.clock() + timedelta(days=40))
    assert purge_photos(later) == 1
    with pytest.raises(NotFoundError):
        find_picture(context, late.address.rsplit("/", 1)[1])
    for photo in (kept, gone):
        assert find_picture(context, photo.address.rsplit("/", 1)[1]).is_file()
