"""The server killed under writers, restores killed while they write: what was acknowledged, and what is left."""

from __future__ import annotations

import http.client
import json
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Mapping
from pathlib import Path
from typing import Any
from uuid import uuid4

from ohmcensus.demo.seed import seed_demo
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.backup import read_backup, write_backup
from ohmcensus.storage.check import damage_of
from ohmcensus.storage.database import FILE_NAME, open_store

KILLS, RESTORES, WRITERS = 30, 30, 3
AT = "2026-11-27T00:00:00Z"


def served(folder: Path) -> tuple[subprocess.Popen[str], str]:
    """Start a server; return it with its address."""
    command = [sys.executable, "-m", "ohmcensus", "serve", "--port", "0", "--data", str(folder)]
    server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True)
    assert server.stdout is not None
    return server, server.stdout.readline().split()[-1]


def sent(url: str, body: Mapping[str, object]) -> dict[str, Any]:
    """Post JSON and return the answer."""
    request = urllib.request.Request(url, json.dumps(body).encode(), {"Content-Type": "application/json"})
    with urllib.request.urlopen(request, timeout=10) as answer:
        return dict(json.load(answer))


class Writer(threading.Thread):
    """Logs readings on a job of its own until the server is gone; what was not acknowledged is sent again."""

    def __init__(self, address: str, job: str, waiting: dict[str, str]) -> None:
        super().__init__(daemon=True)
        self.address, self.job, self.waiting = address, job, waiting
        self.acknowledged: list[str] = []
        self.resent = 0

    def run(self) -> None:
        """Write until nobody answers."""
        try:
            with urllib.request.urlopen(f"{self.address}/api/jobs/{self.job}", timeout=10) as answer:
                revision = json.load(answer)["revision"]
            while True:
                self.resent += self.job in self.waiting
                reading = self.waiting.setdefault(self.job, str(uuid4()))
                body = {"id": reading, "revision": revision, "text": "outlet 229"}
                found = sent(f"{self.address}/api/jobs/{self.job}/readings", body)
                self.acknowledged.append(reading)
                del self.waiting[self.job]
                revision = found["job"]["revision"]
        except (OSError, urllib.error.URLError, http.client.HTTPException, ValueError):
            return


def kill_server(folder: Path) -> None:
    """Kill a server again and again; print what was lost."""
    chance = random.Random(1)  # noqa: S311 - when it is killed
    server, address = served(folder)
    jobs = [str(uuid4()) for _ in range(WRITERS)]
    for number, job in enumerate(jobs):
        sent(f"{address}/api/jobs", {"id": job, "machine": f"M{number}", "place": "P", "sheet": "fl7-u"})
    acknowledged: dict[str, list[str]] = {job: [] for job in jobs}
    waiting: dict[str, str] = {}
    resent, back, damaged = 0, [], 0
    for _ in range(KILLS):
        writers = [Writer(address, job, waiting) for job in jobs]
        for writer in writers:
            writer.start()
        time.sleep(chance.uniform(0.5, 2.5))
        server.send_signal(signal.SIGKILL)
        server.wait()
        for writer in writers:
            writer.join()
            acknowledged[writer.job] += writer.acknowledged
            resent += writer.resent
        damaged += damage_of(folder / FILE_NAME) != ""
        start = time.perf_counter()
        server, address = served(folder)
        back.append(time.perf_counter() - start)
    lost = doubled = 0
    for job, ids in acknowledged.items():
        with urllib.request.urlopen(f"{address}/api/jobs/{job}/export.json", timeout=60) as answer:
            rows = [row["id"] for row in json.load(answer)["history"]]
        lost += len(set(ids) - set(rows))
        doubled += len(rows) - len(set(rows))
    server.terminate()
    server.wait()
    total = sum(map(len, acknowledged.values()))
    print(f"server killed {KILLS} times under {WRITERS} writers: {total} acknowledged, {lost} lost, {doubled} doubled,")
    print(
        f"  {resent} sent again, {damaged} databases damaged; back after {sorted(back)[len(back) // 2]:.1f} s (median)"
    )


def kill_restore(folder: Path) -> None:
    """Kill restores at every moment of theirs; print what is left."""
    context = Context(open_store(folder / "demo"))
    seed_demo(context)
    context.store.close()
    write_backup(folder / "demo", folder / "all.zip", at=AT)
    begun = time.perf_counter()
    command = [sys.executable, "-m", "ohmcensus", "restore", str(folder / "all.zip"), "--data"]
    subprocess.run([*command, str(folder / "whole")], check=True, stdout=subprocess.DEVNULL)
    takes = time.perf_counter() - begun
    none = whole = broken = stuck = 0
    for number in range(RESTORES):
        target = folder / f"r{number}"
        with subprocess.Popen([*command, str(target)], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL) as running:
            time.sleep(takes * (0.4 + 0.6 * number / RESTORES))
            running.kill()
        if not (target / FILE_NAME).exists():
            none += 1
            try:
                read_backup(folder / "all.zip", target, aside=True)
            except Exception as error:  # noqa: BLE001 - counted and told
                stuck += 1
                print(f"  a second restore is refused: {error}")
        elif damage_of(target / FILE_NAME):
            broken += 1
        else:
            whole += 1
    print(
        f"restore killed {RESTORES} times: {whole} whole, {none} nothing there, {broken} broken, {stuck} refused after"
    )


def main() -> None:
    """Print all of it."""
    with tempfile.TemporaryDirectory() as name:
        kill_server(Path(name) / "served")
        kill_restore(Path(name))
    sys.stdout.flush()


if __name__ == "__main__":
    main()
