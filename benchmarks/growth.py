"""How the answers grow with the store: 200 jobs with 10,000 readings, then 2,000 with 100,000.

The yardstick is a bare Flask-and-SQLModel application on the same disk in the same run: it inserts one row and lists
fifty of as many rows. Jobs are copied from one that went through the use cases, row by row, so that filling the store
takes seconds.
"""

from __future__ import annotations

import http.client
import json
import os
import random
import shutil
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
from contextlib import closing
from pathlib import Path
from typing import Any
from uuid import UUID, uuid5

from flask import Flask, Response, request
from sqlmodel import Field, Session, SQLModel, create_engine, select
from sqlmodel.main import FieldInfo

from benchmarks.slice_speed import Client, prove_dead, whole_sheet
from ohmcensus.core.event import Ended, Isolated
from ohmcensus.services.beside import Beside
from ohmcensus.services.context import Context
from ohmcensus.services.export_job import export_job
from ohmcensus.services.look_after import look_after
from ohmcensus.services.open_job import NewJob, open_job
from ohmcensus.services.record_event import NewEvent, record_event
from ohmcensus.storage.backup import write_backup
from ohmcensus.storage.database import FILE_NAME, open_store
from ohmcensus.web.serve import running, serving

SMALL, LARGE = 200, 2000
SPACE = UUID("8b1c0b36-7f0e-4e5e-9a0f-5a3c5d1f0000")
READINGS = 50
COMPLAINTS = ("does not heat", "trips the device", "stops mid-cycle", "does not spin", "leaks under the door")


def template(folder: Path) -> tuple[str, Context]:
    """Return a job with fifty readings that went through the use cases, in a store of its own."""
    context = Context(open_store(folder))
    job = str(open_job(context, NewJob(id=uuid5(SPACE, "first"), machine="Machine", place="Place", sheet="fl7-u")).id)
    with serving(context) as address:
        client, revision = Client(address), prove_dead(context, job)
        lines = whole_sheet()
        for number in range(READINGS - 6):
            body = {"id": str(uuid5(SPACE, f"r{number}")), "revision": revision, "text": lines[number % len(lines)]}
            client.post(f"/api/jobs/{job}/readings", body)
            revision += 1
    return job, context


def fill(context: Context, job: str, count: int) -> None:
    """Copy a job so often, each on a machine and a day of its own, every tenth still going on."""
    with closing(sqlite3.connect(context.store.file)) as file:
        tables = {
            name: [row[1] for row in file.execute(f"PRAGMA table_info({name})")]
            for name in ("machine", "job", "reading", "event", "frame")
        }
        rows = {name: _rows(file, name, columns, job) for name, columns in tables.items()}
        words = file.execute("SELECT head, log FROM job_search").fetchone()
        asked = file.execute("SELECT asked, outside FROM job_summary").fetchone()
        for number in range(1, count):
            _copy(file, tables, rows, number)
            head = f"Machine {number} {COMPLAINTS[number % 5]} serial S{number} {words[0]}"
            told = (uuid5(SPACE, f"job{number}").hex, *asked)
            told = (str(UUID(told[0])), *asked)
            place = file.execute(
                "INSERT INTO job_summary (job_id, asked, outside, card, version) VALUES (?, ?, ?, '', '')", told
            )
            file.execute(
                "INSERT INTO job_search (rowid, head, log) VALUES (?, ?, ?)", (place.lastrowid, head, words[1])
            )
        file.commit()


def _rows(file: sqlite3.Connection, name: str, columns: list[str], job: str) -> list[dict[str, Any]]:
    where = {"machine": "1", "job": f"id = '{job}'"}.get(name, f"job_id = '{job}'")
    return [
        dict(zip(columns, row, strict=True))
        for row in file.execute(f"SELECT {', '.join(columns)} FROM {name} WHERE {where}")
    ]


def _copy(
    file: sqlite3.Connection, tables: dict[str, list[str]], rows: dict[str, list[dict[str, Any]]], number: int
) -> None:
    """Write one copy under ids of its own."""
    day = f"2025-{1 + number % 12:02d}-{1 + number % 28:02d}T{number % 24:02d}:{number % 60:02d}:00Z"
    new = {"machine": str(uuid5(SPACE, f"machine{number}")), "job": str(uuid5(SPACE, f"job{number}"))}
    for name, columns in tables.items():
        for at, row in enumerate(rows[name]):
            copied = dict(row)
            if name == "frame":
                copied["id"] = None
            else:
                copied["id"] = new.get(name) or str(uuid5(SPACE, f"{name}{number} {at}"))
            if name == "machine":
                copied["name"] = f"Machine {number}"
            if name == "job":
                copied |= {
                    "machine_id": new["machine"],
                    "opened_at": day,
                    "changed_at": day,
                    "is_ended": 0,
                    "complaint": json.dumps({"words": COMPLAINTS[number % 5]}),
                }
            if "job_id" in copied:
                copied["job_id"] = new["job"]
            if "at" in copied:
                copied["at"] = day
            marks = ", ".join("?" for _ in columns)
            file.execute(f"INSERT INTO {name} VALUES ({marks})", [copied[column] for column in columns])


class _BareRow(SQLModel, table=True):
    """A row of the yardstick."""

    __tablename__ = "bare_row"

    id: str = Field(primary_key=True)
    at: str = Field(index=True)
    body: str


def bare(folder: Path, count: int) -> tuple[float, float]:
    """Time an insert and a list of fifty in a bare application with so many rows, in ms."""
    engine = create_engine(f"sqlite:///{folder / 'bare.db'}")
    SQLModel.metadata.tables["bare_row"].create(engine)
    with Session(engine) as session:
        session.connection().exec_driver_sql("PRAGMA journal_mode=WAL")
        session.connection().exec_driver_sql("PRAGMA synchronous=FULL")
        session.add_all(_BareRow(id=str(number), at=f"{number:06d}", body="x" * 1500) for number in range(count))
        session.commit()
    app = Flask("bare")

    @app.post("/")
    def insert() -> Response:
        told = request.get_json()
        with Session(engine) as session:
            session.add(_BareRow(id=told["id"], at=told["id"], body="x" * 1500))
            session.commit()
            found = session.get(_BareRow, told["id"])
            return Response(found.model_dump_json() if found else "", mimetype="application/json")

    @app.get("/")
    def listed() -> Response:
        with Session(engine) as session:
            rows = session.exec(select(_BareRow).order_by(_BareRow.at.desc()).limit(50)).all()  # type: ignore[attr-defined]
            return Response(f"[{','.join(row.model_dump_json() for row in rows)}]", mimetype="application/json")

    with running(app) as address:
        client = Client(address)
        inserted = [taken(lambda n=n: client.post("/", {"id": f"n{n}"})) for n in range(60)]
        lists = [taken(lambda: get(client, "/")) for _ in range(60)]
    return statistics.median(inserted), statistics.median(lists)


def taken(call: Any) -> float:
    """Return the time of a call, in ms."""
    start = time.perf_counter()
    call()
    return (time.perf_counter() - start) * 1000


def get(client: Client, path: str) -> bytes:
    """Return the body of an answer."""
    connection: http.client.HTTPConnection = client._connection  # noqa: SLF001 - the one that is kept alive
    connection.request("GET", path)
    return connection.getresponse().read()


def measured(folder: Path, jobs: int) -> dict[str, float]:
    """Return every figure of a store of so many jobs, in ms."""
    first, context = template(folder / "data")
    fill(context, first, jobs)
    context.store.close()
    context = Context(open_store(folder / "data"), beside=Beside())
    with serving(context) as address:
        client = Client(address)
        get(client, "/api/jobs")
        look_after(context)
        while context.beside is not None and any(
            context.beside.waits(("card", str(uuid5(SPACE, f"job{n}")))) for n in range(1, jobs)
        ):
            time.sleep(0.5)
        time.sleep(2)
        chance = random.Random(4)
        ids = [str(uuid5(SPACE, f"job{chance.randrange(1, jobs)}")) for _ in range(60)]
        found = {
            "list": [taken(lambda: get(client, "/api/jobs")) for _ in range(40)],
            "search, one word": [
                taken(lambda w=w: get(client, f"/api/jobs?find={w}"))
                for w in ("heat", "trips", "spin", "229", "machine") * 8
            ],
            "search, three": [taken(lambda n=n: get(client, f"/api/jobs?find=machine+{n}+heat")) for n in range(40)],
            "a job, cold": [taken(lambda j=j: get(client, f"/api/jobs/{j}/trace")) for j in dict.fromkeys(ids)],
        }
        warm = ids[-1]
        get(client, f"/api/jobs/{warm}/trace")
        found["a job, warm"] = [taken(lambda: get(client, f"/api/jobs/{warm}/trace")) for _ in range(40)]
        found["frame of a job"] = [taken(lambda: get(client, f"/api/jobs/{warm}")) for _ in range(40)]
        revision = json.loads(get(client, f"/api/jobs/{warm}"))["revision"]
        logs = []
        for n in range(60):
            body = {"id": str(uuid5(SPACE, f"l{n}")), "revision": revision + n, "text": "outlet 229"}
            logs.append(taken(lambda body=body: client.post(f"/api/jobs/{warm}/readings", body)))
        found["log_reading"] = logs
    values = {name: statistics.median(times) for name, times in found.items()}
    values["backup"] = taken(lambda: write_backup(folder / "data", folder / "all.zip", at="2026-11-27T00:00:00Z"))
    values["file, MB"] = sum(path.stat().st_size for path in (folder / "data").glob(f"{FILE_NAME}*")) / 1e6
    if context.beside is not None:
        context.beside.stop()
    context.store.close()
    return values


WANTED = {
    "list": 60,
    "search, one word": 80,
    "search, three": 80,
    "a job, cold": 200,
    "a job, warm": 20,
    "backup": 6000,
}


def main() -> None:
    """Print every figure at both sizes, and beside the bare application."""
    with tempfile.TemporaryDirectory() as name:
        sizes = {}
        for jobs in (SMALL, LARGE):
            folder = Path(name) / str(jobs)
            folder.mkdir()
            sizes[jobs] = measured(folder, jobs)
        inserted, listed = bare(Path(name), LARGE * READINGS)
    print(f"{'':24}{SMALL:>10} jobs {LARGE:>8} jobs   times   wanted")
    for figure, large in sizes[LARGE].items():
        small = sizes[SMALL][figure]
        limit = f"< {WANTED[figure]} ms" if figure in WANTED else ""
        print(f"{figure:24}{small:12.1f}    {large:12.1f}    {large / small:6.2f}   {limit}")
    print(f"{'bare insert, bare list':24}{inserted:12.1f}    {listed:12.1f}")
    large = sizes[LARGE]
    print(f"log_reading {large['log_reading'] / inserted:.2f} times a bare insert (wanted <= 2.5)")
    print(f"list {large['list'] / listed:.2f} times a bare list (wanted <= 1.5)")


if __name__ == "__main__":
    main()
