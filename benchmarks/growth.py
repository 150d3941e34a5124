"""How the answers grow with the store: 200 jobs with 10,000 readings, then 2,000 with 100,000.

The yardstick is a bare Flask-and-SQLModel application on the same disk in the same run: it inserts one row and lists
fifty of as many rows. Jobs are copied from one that went through the use cases, row by row, so that filling the store
takes seconds.
"""

from __future__ import annotations

import http.client
import json
import random
import sqlite3
import statistics
import tempfile
import time
from contextlib import closing
from pathlib import Path
from typing import Any
from uuid import UUID, uuid5

from flask import Flask, Response, request
from sqlalchemy import event
from sqlmodel import Session, col, create_engine, select

from benchmarks.slice_speed import Client, prove_dead, whole_sheet
from ohmcensus.services.at_hand.beside import Beside
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.transfer.export_job import export_archive, export_text
from ohmcensus.services.upkeep.look_after import look_after
from ohmcensus.storage.backup import write_backup
from ohmcensus.storage.database import FILE_NAME, open_store
from ohmcensus.storage.tables import AddressRow, JobRow, JobSummaryRow, MachineRow, ReadingRow
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
            told = (str(uuid5(SPACE, f"job{number}")), *asked)
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
        for row in file.execute(f"SELECT {', '.join(columns)} FROM {name} WHERE {where}")  # noqa: S608 - our own names
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
            file.execute(f"INSERT INTO {name} VALUES ({marks})", [copied[column] for column in columns])  # noqa: S608


def bare(file: Path) -> tuple[float, float]:
    """Time an insert and a list of fifty in a bare application over the same rows of the same tables, in ms.

    It checks nothing and works nothing out: one reading is added by the object layer and returned, or fifty jobs with
    their machine, place and summary are selected and returned.
    """
    engine = create_engine(f"sqlite:///{file}")
    app = Flask("bare")

    @app.post("/")
    def insert() -> Response:
        with Session(engine) as session:
            session.add(ReadingRow(**request.get_json()))
            session.commit()
            return Response("{}", mimetype="application/json")

    @app.get("/")
    def listed() -> Response:
        wanted = (
            select(JobRow, MachineRow, AddressRow, JobSummaryRow)
            .join(MachineRow, col(MachineRow.id) == JobRow.machine_id)
            .join(AddressRow, col(AddressRow.id) == MachineRow.place_id)
            .join(JobSummaryRow, col(JobSummaryRow.job_id) == JobRow.id)
            .where(col(JobRow.is_ended).is_(False))
            .order_by(col(JobRow.changed_at).desc())
            .limit(50)
        )
        with Session(engine) as session:
            rows = [[part.model_dump() for part in row] for row in session.exec(wanted)]
        return Response(json.dumps(rows), mimetype="application/json")

    with engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA journal_mode=WAL")
        row = dict(connection.exec_driver_sql("SELECT * FROM reading").mappings().fetchone() or {})
    event.listen(engine, "connect", lambda opened, _: opened.execute("PRAGMA synchronous=FULL"))
    engine.dispose()
    with running(app) as address:
        client = Client(address)
        lists = [taken(lambda: get(client, "/")) for _ in range(60)]
        rows = [row | {"id": str(uuid5(SPACE, f"bare {number}"))} for number in range(60)]
        inserted = [taken(lambda row=row: client.post("/", row)) for row in rows]
    engine.dispose()
    return statistics.median(inserted), statistics.median(lists)


def _unsummed(context: Context) -> int:
    """Return how many jobs have no card yet."""
    with closing(sqlite3.connect(context.store.file)) as file:
        return int(file.execute("SELECT count(*) FROM job_summary WHERE version = ''").fetchone()[0])


def proved(client: Client, job: str, revision: int) -> int:
    """Prove a machine dead; return the job's revision then."""
    event_body = {"id": str(uuid5(SPACE, f"isolated {job}")), "revision": revision, "body": {"kind": "isolated"}}
    client.post(f"/api/jobs/{job}/events", event_body)
    for text in ("source 230", "dead ln 0.1", "dead le 0.1", "dead ne 0.1", "dead filter 0.1", "source 230"):
        revision += 1
        body = {"id": str(uuid5(SPACE, f"{job} {revision}")), "revision": revision, "text": text}
        client.post(f"/api/jobs/{job}/readings", body)
    return revision + 1


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


def _logged(client: Client, job: str, revision: int) -> list[float]:
    """Return what each of sixty readings took to log, in ms."""
    times, lines = [], whole_sheet()
    revision = proved(client, job, revision)
    for n in range(60):
        body = {"id": str(uuid5(SPACE, f"l{n}")), "revision": revision + n, "text": lines[n % len(lines)]}
        times.append(taken(lambda body=body: client.post(f"/api/jobs/{job}/readings", body)))
    return times


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
        while _unsummed(context) > 0:
            time.sleep(0.5)
        client = Client(address)
        chance = random.Random(4)  # noqa: S311 - which jobs are opened
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
        found["log_reading"] = _logged(client, warm, revision)
    values = {name: statistics.median(times) for name, times in found.items()}
    some = [str(uuid5(SPACE, f"job{n}")) for n in range(1, 31)]
    values["export, a job"] = taken(lambda: [export_text(context, job, "json") for job in some]) / len(some)
    values["the same with PDF"] = taken(lambda: export_archive(context, some, folder / "some.zip")) / len(some)
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
    "export, a job": 20,
    "the same with PDF": 150,
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
        inserted, listed = bare(Path(name) / str(LARGE) / "data" / FILE_NAME)
    large = sizes[LARGE]
    print(f"{'':24}{SMALL:>10} jobs {LARGE:>8} jobs   times   wanted")
    for figure, value in large.items():
        small = sizes[SMALL][figure]
        limit = f"< {WANTED[figure]} ms" if figure in WANTED else ""
        print(f"{figure:24}{small:12.1f}    {value:12.1f}    {value / small:6.2f}   {limit}")
    print(f"{'bare insert, bare list':24}{inserted:12.1f}    {listed:12.1f}")
    print(f"log_reading {large['log_reading'] / inserted:.2f} times a bare insert (wanted <= 2.5)")
    print(f"list {large['list'] / listed:.2f} times a bare list (wanted <= 1.5)")


if __name__ == "__main__":
    main()
