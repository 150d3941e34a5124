"""Answers of the API about the demo, as the interface's tests draw them: ui/tests/examples.

Run as ``python -m tests.examples FOLDER``; ``make types`` does.
"""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path
from typing import Any

from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app
from tests.noon import NOON
from tests.seeded import new_store, with_demo

MACHINE = "Machine 3"
ROOMS = ("intake", "safe", "codes", "trip", "suspects", "repair", "proof", "sheet-out", "parts", "outlook")
FIRM = ("settings", "shelf", "addresses", "meters", "limits")


def examples(folder: Path) -> None:
    """Write every answer that the tests of the interface draw."""
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data:
        context = with_demo(Context(new_store(Path(data)), clock=lambda: NOON))
        client = create_app(context).test_client()
        jobs = client.get("/api/jobs").get_json()
        job = next(row["id"] for row in jobs["jobs"] if row["machine"] == MACHINE)
        _write(folder / "jobs.gen.json", jobs)
        for room in ROOMS:
            _write(folder / f"{room}.gen.json", client.get(f"/api/jobs/{job}/{room}").get_json())
        for path in FIRM:
            _write(folder / f"{path}.gen.json", client.get(f"/api/{path}").get_json())
        context.store.close()


def _settled(value: Any) -> Any:
    """Return an answer with what chance made of it in its place: the id of a machine."""
    if isinstance(value, dict):
        known = {"machine_id": "00000000-0000-4000-8000-000000000003"}
        return {name: known.get(name, _settled(each)) for name, each in value.items()}
    return [_settled(each) for each in value] if isinstance(value, list) else value


def _write(file: Path, answer: object) -> None:
    answer = _settled(answer)
    file.write_text(json.dumps(answer, sort_keys=True, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    examples(Path(sys.argv[1]))
