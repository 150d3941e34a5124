"""Logging a reading over HTTP, keystroke to preview, start of the server, size of the shell.

The yardstick for logging is measured in the same run on the same disk: one durable insert into a bare
SQLite file (write-ahead log, synchronous=FULL) plus one POST to a server that does nothing.
"""

from __future__ import annotations

import gzip
import http.client
import json
import re
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterable
from pathlib import Path
from uuid import uuid4

from flask import Flask, Response
from playwright.sync_api import sync_playwright
from scripts.chromium import launch

from ohmcensus.core.event import Isolated
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.quantity import Unit
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.storage.database import open_store
from ohmcensus.web.serve import running, serving

ROUNDS = 200
STATIC = Path("src/ohmcensus/web/static")


def milliseconds(call: Callable[[], object], rounds: int = ROUNDS) -> list[float]:
    """Return the time of each call, in ms."""
    taken = []
    for _ in range(rounds):
        start = time.perf_counter()
        call()
        taken.append((time.perf_counter() - start) * 1000)
    return taken


def say(name: str, taken: Iterable[float], wanted: str) -> float:
    """Print minimum, median and maximum; return the median."""
    values = sorted(taken)
    median = statistics.median(values)
    print(f"{name:46} min {values[0]:8.2f}  median {median:8.2f}  max {values[-1]:8.2f} ms   {wanted}")
    return median


class Client:
    """One kept-alive connection, as the browser has."""

    def __init__(self, address: str) -> None:
        self._connection = http.client.HTTPConnection(address.removeprefix("http://"))

    def post(self, path: str, body: dict[str, object]) -> bytes:
        """Post JSON and return the body of the answer."""
        headers = {"Content-Type": "application/json"}
        self._connection.request("POST", path, json.dumps(body), headers)
        answer = self._connection.getresponse()
        found = answer.read()
        assert answer.status < 300, found
        return found


def bare_insert(folder: Path) -> list[float]:
    """Time one durable insert into a bare SQLite file."""
    file = sqlite3.connect(folder / "bare.db", isolation_level=None)
    file.execute("PRAGMA journal_mode=WAL")
    file.execute("PRAGMA synchronous=FULL")
    file.execute("CREATE TABLE reading (id TEXT PRIMARY KEY, body TEXT)")

    def insert() -> None:
        file.execute("INSERT INTO reading VALUES (?, ?)", (str(uuid4()), "x" * 1500))

    taken = milliseconds(insert)
    file.close()
    return taken


def no_op_post() -> list[float]:
    """Time one POST to a server of the same make that does nothing."""
    app = Flask("nothing")
    app.add_url_rule("/", view_func=lambda: Response("{}", mimetype="application/json"), methods=["POST"])
    with running(app) as address:
        client = Client(address)
        return milliseconds(lambda: client.post("/", {"text": "pump 148"}))


def log_and_preview(folder: Path) -> tuple[list[float], list[float], set[str]]:
    """Time logging and previewing over HTTP, and keystroke to preview in Chromium."""
    context = Context(open_store(folder / "data"))
    job = NewJob(id=uuid4(), machine="Machine", place="Place", sheet="fl7-u")
    base = f"/api/jobs/{open_job(context, job).id}"
    revision = prove_dead(context, str(job.id))
    with serving(context) as address:
        client = Client(address)
        lines = whole_sheet()

        def log() -> None:
            nonlocal revision
            text = lines[revision % len(lines)]
            client.post(f"{base}/readings", {"id": str(uuid4()), "revision": revision, "text": text})
            revision += 1

        logged = milliseconds(log, len(whole_sheet()))
        previewed = milliseconds(lambda: client.post(f"{base}/preview", {"text": "heater 25.9"}), 100)
        scripts = keystroke_to_preview(f"{address}/jobs/{job.id}/trace")
    context.store.close()
    return logged, previewed, scripts


def prove_dead(context: Context, job_id: str) -> int:
    """Cut the machine off and log the whole proof; return the job's revision."""
    isolated = NewEvent(id=uuid4(), revision=1, body=Isolated())
    revision = record_event(context, job_id, isolated).revision
    for text in ("source 230", "dead ln 0.1", "dead le 0.1", "dead ne 0.1", "dead filter 0.1", "source 230"):
        row = NewReading(id=uuid4(), revision=revision, text=text)
        revision = log_reading(context, job_id, row).job.revision
    return revision


def whole_sheet() -> list[str]:
    """Return one plausible line for every test that is made in ohms: a whole job."""
    lines = []
    for test in machine_tests(find_sheet("fl7-u"), 20.0):
        window = test.window.interval
        if test.window.unit is Unit.OHM:
            value = test.window.nominal or window.finite_hi or 2 * window.lo
            lines.append(f"{test.part} {test.name} {value:.2f} {test.window.unit.symbol}")
    return lines


def keystroke_to_preview(url: str) -> set[str]:
    """Print the time from an input event to the changed preview; return the scripts that the trace screen loads."""
    with sync_playwright() as play:
        browser = launch(play)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        scripts: set[str] = set()
        page.on("request", lambda request: scripts.add(request.url.rsplit("/", 1)[1]))
        page.goto(url)
        page.get_by_label("Type a part and a reading").fill("heater 2")
        page.wait_for_timeout(500)
        taken = page.evaluate(
            """async () => {
              const input = document.querySelector('.bar input');
              const out = document.querySelector('.answer');
              const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
              const taken = [];
              for (let i = 0; i < 30; i++) {
                const changed = new Promise((done) => {
                  const watch = new MutationObserver(() => { watch.disconnect(); requestAnimationFrame(done); });
                  watch.observe(out, { childList: true, subtree: true, characterData: true });
                });
                const start = performance.now();
                set.call(input, `heater ${20 + i}.3`);
                input.dispatchEvent(new Event('input', { bubbles: true }));
                await changed;
                taken.push(performance.now() - start);
              }
              return taken;
            }"""
        )
        browser.close()
    say("keystroke to preview, in Chromium", taken, "wanted < 60")
    return {name for name in scripts if name.endswith(".js")}


def import_only() -> None:
    """Import the frameworks and nothing else, in a process of its own: what any such server has to wait for."""
    subprocess.run([sys.executable, "-c", "import flask_openapi3, sqlmodel, pydantic"], check=True)


def ready_after(folder: Path) -> float:
    """Return the time from the command to its first answer, in ms."""
    command = [str(Path(sys.executable).with_name("ohmcensus")), "serve", "--port", "0", "--data", str(folder)]
    start = time.perf_counter()
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as server:
        assert server.stdout is not None
        address = re.search(r"http://\S+", server.stdout.readline())
        assert address
        urllib.request.urlopen(f"{address[0]}/api/health").read()
        taken = (time.perf_counter() - start) * 1000
        server.terminate()
    return taken


def main() -> None:
    """Print every figure beside what is wanted."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        bare = say("bare durable SQLite insert", bare_insert(folder), "")
        nothing = say("POST that does nothing", no_op_post(), "")
        logged, previewed, scripts = log_and_preview(folder)
        ours = say("log_reading over HTTP, every line of a job", logged, "wanted <= 15")
        print(f"{'  times bare insert + empty POST':46} {ours / (bare + nothing):12.2f}          wanted <= 3")
        say("preview over HTTP", previewed, "wanted <= 5")
        loaded = statistics.median(milliseconds(import_only, 5))
        wanted = 1.3 * loaded + 500
        served = [ready_after(folder / "serve") for _ in range(6)][1:]
        say("serve, command to first answer", served, f"wanted < {wanted:.0f}: 1.3 × {loaded:.0f} + 500")
    sizes = {f.name: len(gzip.compress(f.read_bytes(), 9)) for f in (STATIC / "assets").glob("*.js")}
    first = sum(sizes[name] for name in scripts)
    print(f"{'script that the trace screen loads, gzip':46} {first / 1000:12.1f} kB       wanted <= 200")
    print(f"{'script of the whole interface, gzip':46} {sum(sizes.values()) / 1000:12.1f} kB")


if __name__ == "__main__":
    main()
