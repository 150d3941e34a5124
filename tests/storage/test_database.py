"""The data directory: settings of SQLite, migrations, and what a crash leaves."""

from __future__ import annotations

import json
import os
import re
import signal
import sqlite3
import subprocess
import sys
import urllib.request
from pathlib import Path
from typing import Any

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text

from ohmcensus.core.errors import InputError
from ohmcensus.storage.database import FILE_NAME, NEWEST_MIGRATION, open_store
from ohmcensus.storage.summaries import TABLE
from ohmcensus.storage.tables import metadata


def test_every_commit_is_on_the_disk_before_it_is_acknowledged(tmp_path: Path) -> None:
    store = open_store(tmp_path)
    with store.write() as session:
        found = {
            name: session.connection().execute(text(f"PRAGMA {name}")).scalar()
            for name in ("journal_mode", "synchronous", "foreign_keys")
        }
    assert found == {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1}
    store.close()


def test_the_migrations_make_the_tables_that_the_code_knows(tmp_path: Path) -> None:
    store = open_store(tmp_path)
    with store.read() as session:
        told = {"include_name": lambda name, kind, _parents: kind != "table" or not name.startswith(TABLE)}
        difference = compare_metadata(MigrationContext.configure(session.connection(), opts=told), metadata)
    store.close()
    assert difference == []
    newest = sorted(Path("src/ohmcensus/storage/migrations/versions").glob("0*.py"))[-1]
    assert newest.name.startswith(NEWEST_MIGRATION)


def test_a_store_of_a_newer_version_is_left_alone(tmp_path: Path) -> None:
    open_store(tmp_path).close()
    with sqlite3.connect(tmp_path / FILE_NAME) as file:
        file.execute("UPDATE alembic_version SET version_num = '9999'")
    file.close()
    with pytest.raises(InputError, match="written by a newer Ohmcensus"):
        open_store(tmp_path)


def test_what_is_no_folder_or_no_database_is_refused(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("x")
    with pytest.raises(InputError, match="choose another with --data"):
        open_store(tmp_path / "file")


def _send(method: str, url: str, body: bytes) -> Any:
    request = urllib.request.Request(url, data=body, method=method, headers={"Content-Type": "application/json"})
    with urllib.request.urlopen(request, timeout=10) as response:
        return json.load(response)


def _serve(folder: Path) -> tuple[subprocess.Popen[str], str]:
    command = [sys.executable, "-m", "ohmcensus", "serve", "--port", "0", "--data", str(folder)]
    server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert server.stdout is not None
    match = re.search(r"http://\S+", server.stdout.readline())
    assert match
    return server, match[0]


def test_readings_that_were_acknowledged_survive_a_killed_server(tmp_path: Path) -> None:
    job = "5f0c2b52-6c0e-4c3e-9d0c-0f8f3f1a0001"
    server, address = _serve(tmp_path)
    body = f'{{"id":"{job}","machine":"M","place":"P","sheet":"fl7-u"}}'
    _send("POST", f"{address}/api/jobs", body.encode())
    for number, line in ((1, "heater loose 25.9"), (2, "pump loose 148")):
        reading = f'{{"id":"5f0c2b52-6c0e-4c3e-9d0c-0f8f3f1b000{number}","revision":{number},"text":"{line}"}}'
        assert _send("POST", f"{address}/api/jobs/{job}/readings", reading.encode())["job"]["asked"] == number
    os.kill(server.pid, signal.SIGKILL)
    server.wait()
    assert server.stdout is not None
    server.stdout.close()
    server, address = _serve(tmp_path)
    with urllib.request.urlopen(f"{address}/api/jobs", timeout=10) as response:
        assert b'"asked":2' in response.read()
    server.terminate()
    server.wait()
    assert server.stdout is not None
    server.stdout.close()
