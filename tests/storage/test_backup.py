"""Everything in one file and back: whole, or not at all."""

from __future__ import annotations

import json
import random
import sqlite3
import subprocess
import sys
import time
import zipfile
from collections.abc import Callable
from contextlib import closing, suppress
from pathlib import Path

import pytest
from tests.seeded import DEMO_JOBS, with_demo
from tests.storage.test_trouble import spoiled
from tests.working import every_job, logged, prove_dead

from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.transfer.export_job import export_job, export_text
from ohmcensus.services.transfer.import_job import import_file
from ohmcensus.storage.backup import FORMAT, NOTE, read_backup, write_backup
from ohmcensus.storage.check import damage_of
from ohmcensus.storage.database import FILE_NAME, open_store

AT = "2026-11-25T12:00:00Z"


def test_what_comes_back_is_what_was_there_photos_included(context: Context, tmp_path: Path) -> None:
    with_demo(context)
    job = every_job(context)[0].id
    prove_dead(context, job)
    logged(context, job, "pump 148")
    found = write_backup(context.store.folder, tmp_path / "all.zip", at=AT)
    assert read_backup(tmp_path / "all.zip", tmp_path / "new") == found.files >= 1
    here = {path.name: path.read_bytes() for path in (context.store.folder / "photos").rglob("*.jpg")}
    assert {path.name: path.read_bytes() for path in (tmp_path / "new" / "photos").rglob("*.jpg")} == here
    again = Context(open_store(tmp_path / "new"))
    for row in every_job(context):
        here, there = (json.loads(export_text(one, row.id, "json")) for one in (context, again))
        assert {**here, "safety": None} == {**there, "safety": None}
    again.store.close()


def other(name: str, body: str) -> Callable[[zipfile.ZipFile], None]:
    return lambda out: out.writestr(name, body)


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (other("readme.txt", "hello"), "is not a backup of Ohmcensus"),
        (other(NOTE, '{"format": "ohmcensus-backup/2"}'), "of a newer kind"),
        (other(NOTE, '{"format": "something/1"}'), "is not a backup of Ohmcensus"),
        (other(NOTE, "no json"), "is not a backup of Ohmcensus"),
        (other("../outside.txt", "x"), "what no backup does"),
        (other("photos/../../outside.txt", "x"), "what no backup does"),
        (other("unlikely.exe", "x"), "what no backup does"),
    ],
    ids=["another zip", "newer", "other format", "no note", "out of the folder", "out by photos", "a stranger"],
)
def test_what_is_no_backup_is_refused_and_nothing_is_written(
    tmp_path: Path, spoil: Callable[[zipfile.ZipFile], None], says: str
) -> None:
    file = tmp_path / "bad.zip"
    with zipfile.ZipFile(file, "w") as out:
        spoil(out)
        if NOTE not in out.namelist() and "readme.txt" not in out.namelist():
            out.writestr(NOTE, json.dumps({"format": FORMAT}))
        out.writestr(FILE_NAME, b"")
    with pytest.raises(InputError, match=says):
        read_backup(file, tmp_path / "new")
    assert not (tmp_path / "new").exists()
    assert not (tmp_path / "outside.txt").exists()


def test_damaged_data_a_full_folder_and_no_data_are_refused(context: Context, tmp_path: Path) -> None:
    file = tmp_path / "bad.zip"
    with zipfile.ZipFile(file, "w") as out:
        out.writestr(NOTE, json.dumps({"format": FORMAT}))
        out.writestr(FILE_NAME, b"no database at all, but long enough to be one" * 100)
    with pytest.raises(InputError, match="are damaged"):
        read_backup(file, tmp_path / "new")
    write_backup(context.store.folder, tmp_path / "good.zip", at=AT)
    with pytest.raises(InputError, match="holds data already"):
        read_backup(tmp_path / "good.zip", context.store.folder)
    with pytest.raises(InputError, match="no data in"):
        write_backup(tmp_path / "nowhere", tmp_path / "x.zip", at=AT)
    (tmp_path / "text.zip").write_text("no zip")
    with pytest.raises(InputError, match="cannot be read"):
        read_backup(tmp_path / "text.zip", tmp_path / "new")
    assert sqlite3.connect(context.store.folder / FILE_NAME).execute("PRAGMA integrity_check").fetchone() == ("ok",)


@pytest.fixture
def saved(context: Context, tmp_path: Path) -> Path:
    """A backup of the demo."""
    with_demo(context)
    write_backup(context.store.folder, tmp_path / "all.zip", at=AT)
    return tmp_path / "all.zip"


@pytest.mark.parametrize("left", [f"{FILE_NAME}-wal", f"{FILE_NAME}-shm", "photos"])
def test_nothing_is_restored_beside_what_a_former_database_left(saved: Path, tmp_path: Path, left: str) -> None:
    folder = tmp_path / "new"
    folder.mkdir()
    if left == "photos":
        (folder / left).mkdir()
    else:
        (folder / left).write_bytes(b"old")
    with pytest.raises(InputError, match=f"holds data already \\({left}\\).*--aside"):
        read_backup(saved, folder)
    read_backup(saved, folder, aside=True)
    (old,) = tmp_path.glob("new-aside-*")
    assert [path.name for path in old.iterdir()] == [left]
    assert damage_of(folder / FILE_NAME) == ""
    again = Context(open_store(folder))
    assert len(every_job(again)) == DEMO_JOBS
    again.store.close()


def test_a_damaged_database_gives_no_backup_and_the_former_one_stays(context: Context, saved: Path) -> None:
    before = saved.read_bytes()
    folder = spoiled(context)
    with pytest.raises(InputError, match="damaged"):
        write_backup(folder, saved, at=AT)
    assert saved.read_bytes() == before
    assert list(saved.parent.glob(".ohmcensus-*")) == []


def test_a_picture_that_is_missing_is_named_and_the_rest_goes_on(context: Context, saved: Path) -> None:
    picture = next((context.store.folder / "photos").rglob("*[0-9a-f].jpg"))
    picture.unlink()
    found = write_backup(context.store.folder, saved, at=AT)
    assert [content for content, _ in found.lacking] == [picture.stem]
    export_job(context, "all", saved.with_name("jobs.zip"))
    with zipfile.ZipFile(saved.with_name("jobs.zip")) as archive:
        assert sum(name.endswith("job.json") for name in archive.namelist()) == DEMO_JOBS


def rewritten(source: Path, target: Path, change: Callable[[zipfile.ZipFile], None]) -> Path:
    with zipfile.ZipFile(source) as old, zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as new:
        for row in old.infolist():
            new.writestr(row.filename, old.read(row))
        change(new)
    return target


def _link(out: zipfile.ZipFile) -> None:
    row = zipfile.ZipInfo(f"photos/ab/{'ab' * 32}.jpg")
    row.external_attr = 0o120777 << 16
    out.writestr(row, "/etc/passwd")


@pytest.mark.filterwarnings("ignore:Duplicate name")
@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda out: out.writestr(FILE_NAME, b"again"), "a name twice"),
        (_link, "is not a file"),
        (lambda out: out.writestr(f"photos/ab/{'ab' * 32}.jpg", bytes(5_000_000)), "more than 200 times its size"),
        (lambda out: out.writestr(f"photos/ab/{'cd' * 32}.exe", b""), "what no backup does"),
        (lambda out: out.writestr(f"photos/ab/{'ab' * 32}.jpg", b"x" * 31_000_000), "has 31 MB|times its size"),
    ],
    ids=["twice", "link", "bomb", "stranger", "huge picture"],
)
def test_a_hostile_backup_is_refused_before_a_byte_is_written(
    saved: Path, tmp_path: Path, change: Callable[[zipfile.ZipFile], None], says: str
) -> None:
    bad = rewritten(saved, tmp_path / "bad.zip", change)
    with pytest.raises(InputError, match=says):
        read_backup(bad, tmp_path / "new")
    assert not (tmp_path / "new").exists()


@pytest.mark.parametrize("kind", ["foreign", "empty", "newer"])
def test_a_database_that_is_none_of_ours_is_refused(saved: Path, tmp_path: Path, kind: str) -> None:
    database = tmp_path / "made.db"
    if kind == "foreign":
        with closing(sqlite3.connect(database)) as file:
            file.execute("CREATE TABLE other (x)")
    elif kind == "empty":
        database.write_bytes(b"")
    else:
        with zipfile.ZipFile(saved) as archive:
            database.write_bytes(archive.read(FILE_NAME))
        with closing(sqlite3.connect(database)) as file, file:
            file.execute("UPDATE alembic_version SET version_num = '9999'")
    with zipfile.ZipFile(tmp_path / "bad.zip", "w") as out:
        out.writestr(NOTE, json.dumps({"format": FORMAT}))
        out.write(database, FILE_NAME)
    with pytest.raises(InputError, match=r"damaged|newer Ohmcensus"):
        read_backup(tmp_path / "bad.zip", tmp_path / "new")
    assert not (tmp_path / "new").exists()


@pytest.mark.parametrize("kind", ["backup", "archive"])
def test_a_file_damaged_in_any_byte_is_read_whole_or_refused_in_a_sentence(
    context: Context, saved: Path, tmp_path: Path, kind: str
) -> None:
    file = saved
    if kind == "archive":
        file = tmp_path / "jobs.zip"
        export_job(context, every_job(context)[0].id, file)
    body, chance = file.read_bytes(), random.Random(16)  # noqa: S311 - which byte is spoilt
    other = Context(open_store(tmp_path / "other"))
    for number in range(40):
        place = chance.randrange(len(body)) if number % 2 else len(body) - 1 - chance.randrange(900)
        bad = tmp_path / f"bad{number}.zip"
        bad.write_bytes(body[:place] + bytes([body[place] ^ (1 << chance.randrange(8))]) + body[place + 1 :])
        with suppress(OhmcensusError):
            if kind == "backup":
                read_backup(bad, tmp_path / f"new{number}")
                assert damage_of(tmp_path / f"new{number}" / FILE_NAME) == ""
            else:
                import_file(other, bad)
        bad.unlink()
    other.store.close()


def test_a_restore_that_is_killed_leaves_nothing_or_all(saved: Path, tmp_path: Path) -> None:
    for number in range(6):
        folder = tmp_path / f"killed{number}"
        command = [sys.executable, "-m", "ohmcensus", "restore", str(saved), "--data", str(folder)]
        with subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) as running:
            time.sleep(0.5 + 0.12 * number)
            running.kill()
        if (folder / FILE_NAME).exists():
            assert damage_of(folder / FILE_NAME) == ""
        else:
            read_backup(saved, folder, aside=True)
            assert damage_of(folder / FILE_NAME) == ""
