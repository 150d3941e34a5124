"""Everything in one file and back: whole, or not at all."""

from __future__ import annotations

import json
import sqlite3
import zipfile
from collections.abc import Callable
from pathlib import Path

import pytest
from tests.working import every_job, logged, prove_dead

from ohmcensus.core.errors import InputError
from ohmcensus.services.context import Context
from ohmcensus.services.export_job import export_text
from ohmcensus.services.seed_demo import seed_demo
from ohmcensus.storage.backup import FORMAT, NOTE, read_backup, write_backup
from ohmcensus.storage.database import FILE_NAME, open_store

AT = "2026-11-25T12:00:00Z"


def test_what_comes_back_is_what_was_there_photos_included(context: Context, tmp_path: Path) -> None:
    seed_demo(context)
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
        (other("readme.txt", "hello"), "is no backup of Ohmcensus"),
        (other(NOTE, '{"format": "ohmcensus-backup/2"}'), "of a newer kind"),
        (other(NOTE, '{"format": "something/1"}'), "is no backup of Ohmcensus"),
        (other(NOTE, "no json"), "is no backup of Ohmcensus"),
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
