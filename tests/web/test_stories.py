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
from tests.stories.lifts import LIFTS
from tests.stories.table import TABLE
from tests.stories.told import Steps, Told

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

    def intake(self, complaint: dict[str, Any]) -> Any:
        view = self.client.get(f"{self.path}/intake").get_json()
        body = {"intake_revision": view["intake_revision"], "machine": "M", "place": "P", "complaint": complaint}
        plate = view["plate"]
        return self.client.put(f"{self.path}/intake", json={**body, "sheet": view["job"]["sheet"], "plate": plate})

    def inherit(self, dangers: tuple[str, ...]) -> None:
        with self.context.store.write() as session:
            job = take(self.context, session, self.job)
            frame = replace(job.case.present, order=job.stored.revision, former=dangers)
            with_frame(session, self.job, job.case, frame)
        forget(self.context, self.job)

    def send(self, place: int, step: dict[str, Any]) -> tuple[bool, str, dict[str, Any]]:
        """Send one step; return whether it was taken, what was said, and the state that the answer carries."""
        minutes = step.get("wait_minutes", 1.0)
        at = step.get("at")
        self.now[0] = datetime.fromisoformat(at) if at else self.now[0] + timedelta(minutes=minutes)
        answer = self.answer(place, step)
        if answer is None:
            return True, "", self.client.get(f"{self.path}/power").get_json()["power"]
        header = answer.headers.get("Ohmcensus-Power")
        said = "" if answer.status_code < 300 else answer.get_json(force=True)["detail"]
        carried = json.loads(header)["power"] if header else self.client.get(f"{self.path}/power").get_json()["power"]
        return answer.status_code < 300, said, carried

    def answer(self, place: int, step: dict[str, Any]) -> Any:
        device = {"device": step.get("device", "")}
        if "read" in step:
            more = {"text": step["read"], "override": step.get("override", ""), "meter": step.get("meter"), **device}
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
        return self.of_the_job(step)

    def of_the_job(self, step: dict[str, Any]) -> Any:
        if "withdraw" in step:
            reading = self.written[step["withdraw"]][1]
            return self.client.post(f"{self.path}/readings/{reading}/withdrawal", json=self.head())
        if "intake" in step:
            return self.intake(step["intake"])
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


@pytest.fixture
def static(tmp_path: Path) -> Path:
    folder = tmp_path / "static"
    folder.mkdir()
    (folder / "index.html").write_text("<!doctype html><title>x</title>")
    return folder


def has_who(steps: Steps) -> bool:
    return any("who" in step for step in steps)


# Every story is told to the use cases in tests/services; that the API is the same door, every third shows.
@pytest.mark.parametrize("told", [*TABLE, *LIFTS][::3], ids=lambda told: told.name)
def test_the_api_says_what_replay_says(context: Context, static: Path, told: Told) -> None:
    if has_who(told.steps):
        pytest.skip("another person is another technician of the setup: told by replay")
    caller = Caller(context, told, static)
    for place, (step, ours) in enumerate(zip(told.steps, replay(told.story).steps, strict=True)):
        taken, said, power = caller.send(place, step)
        assert (taken, power["state"]) == (ours.accepted, ours.state), (place, step, said)
        if not taken and "dance" not in str(step):
            assert said == ours.why, place
    safe = caller.client.get(f"{caller.path}/safe").get_json()
    assert [row["hazard"] for row in safe["hazards"]] == [row.id for row in ours.dangers]
    assert (safe["may"]["power"], safe["may"]["live"]) == (ours.may.power, ours.may.live)
