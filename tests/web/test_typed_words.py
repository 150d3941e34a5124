"""What a person types too short or too long is told in plain words, whichever field it was typed into."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any, get_args
from uuid import uuid4

import pytest
from tests.stories.corners import CORNERS
from tests.stories.guard import GUARD
from tests.stories.lifts import LIFTS
from tests.stories.ordinary import ORDINARY, SLIPS
from tests.stories.table import TABLE
from tests.stories.told import MACHINE_WORDS

from ohmcensus.core.event import Body
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app

KINDS = {kind.model_fields["kind"].default: kind for kind in get_args(get_args(Body)[0])}
LONG, SHORT = "a word " * 900, " "


def _told() -> dict[str, dict[str, Any]]:
    """Return one event of each kind that the stories tell, as it is sent."""
    steps = (step for told in (*TABLE, *LIFTS, *GUARD, *CORNERS, *ORDINARY, *SLIPS) for step in told.steps)
    return {step["do"]["kind"]: step["do"] for step in steps if step.get("do", {}).get("kind") in KINDS}


def _mistyped() -> Iterator[tuple[str, str, dict[str, Any]]]:
    """Yield kind, field and body for every text that a person types, once too long, once too short where it may be."""
    for kind, body in sorted(_told().items()):
        for name, field in KINDS[kind].model_fields.items():
            lengths = [row for row in field.metadata if isinstance(row, Trimmed)]
            for text in (LONG, SHORT) if any(row.least for row in lengths) else (LONG,) * len(lengths):
                yield kind, name, {**body, name: text}


def _answers(context: Context, static: Path) -> Iterator[tuple[str, str, int, dict[str, Any]]]:
    client, job = create_app(context, static_folder=static).test_client(), str(uuid4())
    client.post("/api/jobs", json={"id": job, "machine": "M", "place": "P", "sheet": "fl7-u"})
    for kind, name, body in _mistyped():
        sent = {"id": str(uuid4()), "revision": 1, "body": body}
        answer = client.post(f"/api/jobs/{job}/events", json=sent)
        yield kind, name, answer.status_code, answer.get_json(force=True)


def test_what_is_typed_too_short_or_too_long_is_told_in_plain_words(context: Context, static: Path) -> None:
    rows = list(_answers(context, static))
    assert {kind for kind, *_ in rows} >= {"bypass_removed", "noted_in_error", "live_begun", "ended", "strip_step"}
    taken = [(kind, name, said) for kind, name, status, said in rows if status != 422]
    assert taken == []
    assert [(kind, name, said["detail"]) for kind, name, _, said in rows if MACHINE_WORDS.search(said["detail"])] == []
    assert all(said["field"] for *_, said in rows)


def test_a_reason_that_is_none_is_told_by_its_own_sentence(context: Context, static: Path) -> None:
    client, job = create_app(context, static_folder=static).test_client(), str(uuid4())
    client.post("/api/jobs", json={"id": job, "machine": "M", "place": "P", "sheet": "fl7-u"})
    body = {"kind": "noted_in_error", "danger": "shock", "because": "no"}
    answer = client.post(f"/api/jobs/{job}/events", json={"id": str(uuid4()), "revision": 1, "body": body})
    assert answer.get_json(force=True)["detail"] == "because: say in a few words why"


@pytest.mark.parametrize(
    ("field", "text"), [("machine", LONG), ("machine", ""), ("place", LONG), ("complaint", LONG), ("serial", LONG)]
)
def test_a_job_is_told_the_same_way(context: Context, static: Path, field: str, text: str) -> None:
    client = create_app(context, static_folder=static).test_client()
    job = {"id": str(uuid4()), "machine": "M", "place": "P", "sheet": "fl7-u", field: text}
    answer = client.post("/api/jobs", json=job)
    said = answer.get_json(force=True)
    assert (answer.status_code, MACHINE_WORDS.search(said["detail"])) == (422, None)
    assert said["detail"].startswith(field)
