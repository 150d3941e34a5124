"""Every story of SAFETY over HTTP: the API refuses with the very sentence that ``replay`` gives."""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

import pytest
from flask.testing import FlaskClient
from tests.stories.corners import CORNERS
from tests.stories.guard import GUARD
from tests.stories.lifts import LIFTS
from tests.stories.table import TABLE
from tests.stories.told import Steps, Told

from ohmcensus.core.job.former import FormerDanger
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import with_frame
from ohmcensus.services.at_hand.job import forget, take
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.transfer.replay import BAG, replay
from ohmcensus.web.app import create_app


class Caller:
    """Whoever sends the steps of a story to the server, a minute apart."""

    def __init__(self, context: Context, told: Told, static: Path) -> None:
        self.now = [told.story.at]
        self.context = replace(context, clock=lambda: self.now[0], at_hand={})
        story = told.story
        settings = show_settings(self.context).model_copy(update={"bag": BAG, "profile": story.limits or ""})
        keep_settings(self.context, settings)
        self.job = str(uuid4())
        open_job(self.context, NewJob(id=UUID(self.job), machine="M", place="P", sheet=story.sheet))
        self.client: FlaskClient = create_app(self.context, static_folder=static).test_client()
        self.written: dict[int, tuple[str, str]] = {}
        self.acts: list[str] = []
        if told.more.get("complaint"):
            self.intake(told.more["complaint"])
        if story.former.ended_unsafe:
            self.inherit(tuple(story.former.ended_unsafe))

    @property
    def path(self) -> str:
        return f"/api/jobs/{self.job}"

    def head(self, **more: Any) -> dict[str, Any]:
        revision = self.client.get(f"{self.path}/power").get_json()["revision"]
        return {"id": str(uuid4()), "revision": revision, **more}

    def intake(self, complaint: dict[str, Any] | None = None, **more: Any) -> Any:
        view = self.client.get(f"{self.path}/intake").get_json()
        head = {"intake_revision": view["intake_revision"], "machine": "M", "place": "P"}
        told = {"complaint": view["complaint"] if complaint is None else complaint, "sheet": view["job"]["sheet"]}
        return self.client.put(f"{self.path}/intake", json={**head, **told, "plate": view["plate"], **more})

    def inherit(self, dangers: tuple[str, ...]) -> None:
        with self.context.store.write() as session:
            job = take(self.context, session, self.job)
            frame = replace(job.case.present, order=job.stored.revision, former=tuple(map(FormerDanger, dangers)))
            with_frame(session, self.job, job.case, frame)
        forget(self.context, self.job)

    def send(self, place: int, step: dict[str, Any]) -> tuple[bool, str, dict[str, Any]]:
        """Send one step; return whether it was taken, what was said, and the state that the answer carries."""
        minutes = step.get("wait_minutes", step.get("minutes", 1.0))
        at = step.get("at")
        self.now[0] = datetime.fromisoformat(at) if at else self.now[0] + timedelta(minutes=minutes)
        answer = self.answer(place, step)
        if answer is None:
            return True, "", self.client.get(f"{self.path}/power").get_json()["power"]
        header = answer.headers.get("Ohmcensus-Power")
        problem = {} if answer.status_code < 300 else answer.get_json(force=True)
        said, self.acts = problem.get("detail", ""), [act["id"] for act in problem.get("acts", [])]
        assert problem.get("type") != "/problems/safety" or self.acts
        carried = json.loads(header)["power"] if header else self.client.get(f"{self.path}/power").get_json()["power"]
        return answer.status_code < 300, said, carried

    def answer(self, place: int, step: dict[str, Any]) -> Any:
        device = {"device": step.get("device", "")}
        if "read" in step:
            more = {"text": step["read"], "override": step.get("override", ""), "meter": step.get("meter"), **device}
            more |= {name: step[name] for name in ("was", "says") if name in step}
            if "correct" in step:
                more["supersedes"] = self.written[step["correct"]][1]
            body = self.head(**more)
            self.written[place] = ("reading", body["id"])
            return self.client.post(f"{self.path}/readings", json=body)
        if "leak_test" in step:
            body = self.head(line=step["leak_test"], are_wires_insulated=True, **device)
            self.written[place] = ("run_made", body["id"])
            return self.client.post(f"{self.path}/trip/tests", json=body)
        if "do" in step:
            return self.event(place, step["do"], device)
        if "withdraw" in step or "doubt" in step:
            return self.take_back(step, device)
        return self.of_the_job(step)

    def take_back(self, step: dict[str, Any], device: dict[str, str]) -> Any:
        kind, record = self.written[step["withdraw"] if "withdraw" in step else step["doubt"]]
        if kind == "reading":
            return self.client.post(f"{self.path}/readings/{record}/withdrawal", json=self.head(**device))
        body = {"kind": "record_withdrawn", "record": record}
        if kind == "run_made":
            body = {"kind": "run_doubted" if "doubt" in step else "run_withdrawn", "run": record}
        return self.client.post(f"{self.path}/events", json=self.head(body=body, **device))

    def of_the_job(self, step: dict[str, Any]) -> Any:
        if "intake" in step:
            return self.intake(step["intake"])
        if "sheet" in step or "plate" in step:
            return self.intake(**{name: step[name] for name in ("sheet", "plate") if name in step})
        if "limits" in step:
            settings = self.client.get("/api/settings").get_json()
            wanted = {"revision": settings["revision"], "profile": step["limits"] or ""}
            return self.client.patch("/api/settings", json=wanted)
        return None

    def event(self, place: int, body: dict[str, Any], device: dict[str, str]) -> Any:
        """Send an event; the number of a step that it names stands for the id of what was written there."""
        ids = {name: self.written[body[name]][1] for name in ("step", "run") if isinstance(body.get(name), int)}
        sent = self.head(body={**body, **ids}, **device)
        self.written[place] = ("event", sent["id"])
        return self.client.post(f"{self.path}/events", json=sent)


def is_of_replay(told: Told) -> bool:
    """Tell whether a story needs what only a replay has: another person, an earlier job, a sheet of a file."""
    steps: Steps = told.steps
    return any({"who", "serial", "carry"} & step.keys() for step in steps) or "before" in told.more or "/" in told.sheet


OVER_HTTP = [told for told in (*TABLE, *LIFTS, *GUARD, *CORNERS) if not is_of_replay(told)]


@pytest.mark.parametrize("told", OVER_HTTP, ids=lambda told: told.name)
def test_the_api_says_what_replay_says(context: Context, static: Path, told: Told) -> None:
    caller = Caller(context, told, static)
    for place, (step, ours) in enumerate(zip(told.steps, replay(told.story).steps, strict=True)):
        taken, said, power = caller.send(place, step)
        assert (taken, power["state"]) == (ours.accepted, ours.state), (place, step, said)
        if not taken and "dance" not in str(step):
            assert said == ours.why, place
            assert caller.acts == [act.value for act in ours.acts], place
    device = told.steps[-1].get("device", "")
    safe = caller.client.get(f"{caller.path}/safe", query_string={"device": device}).get_json()
    assert [row["hazard"] for row in safe["hazards"]] == [row.id for row in ours.dangers]
    assert (safe["may"]["power"], safe["may"]["live"]) == (ours.may.power, ours.may.live)


ROOMS = (
    "",
    "intake",
    "safe",
    "codes",
    "trace",
    "rungs",
    "trip",
    "trip/story",
    "suspects",
    "outlook",
    "repair",
    "proof",
)
AWAY = [told for told in OVER_HTTP if any("sheet" in step for step in told.steps)]


@pytest.mark.parametrize("told", AWAY, ids=lambda told: told.name)
def test_every_room_opens_on_another_sheet_than_the_one_that_was_read_on(
    context: Context, static: Path, told: Told
) -> None:
    caller = Caller(context, told, static)
    for place, step in enumerate(told.steps):
        caller.send(place, step)
    paths = [f"{caller.path}/{room}".rstrip("/") for room in (*ROOMS, "sheet-out", "report.pdf")]
    assert [(path, said) for path in paths if (said := caller.client.get(path).status_code) != 200] == []
