"""Twenty technicians at once, idle browsers, six askers of a new sheet: how long anybody waits."""

from __future__ import annotations

import collections
import http.client
import json
import random
import socket
import sys
import tempfile
import threading
import time
from collections.abc import Mapping
from pathlib import Path
from typing import Any
from uuid import uuid4

from benchmarks.harsh.kills import sent, served
from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.sheet.copy_sheet import SheetCopy, copy_sheet
from ohmcensus.storage.database import open_store

TECHNICIANS, SECONDS, PAUSE_S, IDLE, ASKERS = 20, 60, 3.0, 200, 6


class Technician(threading.Thread):
    """Works on a job of their own: a line previewed, logged, the trace, the suspects, the list; then a pause."""

    def __init__(self, address: str, number: int, until: float) -> None:
        super().__init__(daemon=True)
        self.host = address.removeprefix("http://")
        self.job, self.number, self.until = str(uuid4()), number, until
        self.took: dict[str, list[float]] = collections.defaultdict(list)
        self.errors: collections.Counter[int] = collections.Counter()

    def run(self) -> None:
        """Work until the time is over."""
        chance = random.Random(self.number)  # noqa: S311 - when they look
        body = {"id": self.job, "machine": f"Machine {self.number}", "place": "Wash house", "sheet": "fl7-u"}
        revision = self.ask("open", "POST", "/api/jobs", body)["revision"]
        time.sleep(chance.uniform(0, PAUSE_S))
        while time.perf_counter() < self.until:
            base = f"/api/jobs/{self.job}"
            self.ask("preview", "POST", f"{base}/preview", {"text": "heater loose 25.9"})
            new = {"id": str(uuid4()), "revision": revision, "text": "heater loose 25.9"}
            revision = self.ask("log", "POST", f"{base}/readings", new)["job"]["revision"]
            self.ask("trace", "GET", f"{base}/trace")
            self.ask("suspects", "GET", f"{base}/suspects")
            self.ask("power", "GET", f"{base}/power")
            self.ask("list", "GET", "/api/jobs")
            if chance.random() < 0.1:
                self.ask("PDF", "GET", f"{base}/report.pdf")
            time.sleep(PAUSE_S)

    def ask(self, what: str, method: str, path: str, body: Mapping[str, object] | None = None) -> Any:
        """Ask, and note how long it took."""
        line = http.client.HTTPConnection(self.host, timeout=60)
        start = time.perf_counter()
        line.request(method, path, json.dumps(body) if body else None, {"Content-Type": "application/json"})
        answer = line.getresponse()
        content = answer.read()
        self.took[what].append((time.perf_counter() - start) * 1000)
        self.errors[answer.status // 100] += 1
        line.close()
        return (
            dict(json.loads(content))
            if what != "PDF" and answer.status < 300
            else {"revision": 1, "job": {"revision": 1}}
        )


def technicians(address: str) -> None:
    """Let them work; print what they waited."""
    until = time.perf_counter() + SECONDS
    people = [Technician(address, number, until) for number in range(TECHNICIANS)]
    for person in people:
        person.start()
    for person in people:
        person.join()
    answers = sum((person.errors for person in people), collections.Counter[int]())
    print(f"{TECHNICIANS} technicians, {SECONDS} s, a pause of {PAUSE_S:g} s a round: answers by class {dict(answers)}")
    for what in people[0].took | {"PDF": []}:
        times = sorted(ms for person in people for ms in person.took[what])
        if times:
            shown = "  ".join(
                f"p{share} {times[min(len(times) - 1, len(times) * share // 100)]:7.0f}" for share in (50, 95, 99)
            )
            print(f"  {what:9} {shown}  max {times[-1]:7.0f} ms  ({len(times)})")


def askers(address: str, sheet: str) -> None:
    """Let six ask for the suspects of a sheet that nobody asked before; print what they and the health waited."""
    jobs = [str(uuid4()) for _ in range(ASKERS)]
    for number, job in enumerate(jobs):
        sent(f"{address}/api/jobs", {"id": job, "machine": f"New {number}", "place": "Pier", "sheet": sheet})
    took: list[float] = []
    ready: list[float] = []

    def ask(job: str) -> None:
        start = time.perf_counter()
        while True:
            begun = time.perf_counter()
            line = http.client.HTTPConnection(address.removeprefix("http://"), timeout=60)
            line.request("GET", f"/api/jobs/{job}/suspects")
            found = json.load(line.getresponse())
            took.append((time.perf_counter() - begun) * 1000)
            if not found["preparing"]:
                ready.append((time.perf_counter() - start) * 1000)
                return
            time.sleep(0.5)

    threads = [threading.Thread(target=ask, args=(job,)) for job in jobs]
    for thread in threads:
        thread.start()
    health = []
    while any(thread.is_alive() for thread in threads):
        begun = time.perf_counter()
        line = http.client.HTTPConnection(address.removeprefix("http://"), timeout=60)
        line.request("GET", "/api/health")
        line.getresponse().read()
        health.append((time.perf_counter() - begun) * 1000)
        time.sleep(0.05)
    print(f"{ASKERS} askers of a new sheet: longest answer {max(took):.0f} ms, all have it after {max(ready):.0f} ms,")
    print(f"  health meanwhile at most {max(health):.0f} ms")


def idle(address: str) -> None:
    """Hold idle connections; print how long the next one waits."""
    host, port = address.removeprefix("http://").split(":")
    held = [socket.create_connection((host, int(port)), timeout=10) for _ in range(IDLE)]
    begun = time.perf_counter()
    line = http.client.HTTPConnection(host, int(port), timeout=60)
    line.request("GET", "/api/health")
    status = line.getresponse().status
    waited = (time.perf_counter() - begun) * 1000
    print(f"{IDLE} idle connections: the next one is answered {status} after {waited:.0f} ms")
    for one in held:
        one.close()


def main() -> None:
    """Print all of it."""
    with tempfile.TemporaryDirectory() as name:
        context = Context(open_store(Path(name) / "data"))
        seed_demo(context)
        sheet = copy_sheet(context, SheetCopy(of="wd8-h", title="Own washer-dryer")).id
        context.store.close()
        server, address = served(Path(name) / "data")
        try:
            askers(address, sheet)
            idle(address)
            technicians(address)
        finally:
            server.terminate()
            server.wait()
    sys.stdout.flush()


if __name__ == "__main__":
    main()
