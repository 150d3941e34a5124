"""Each way on of a refusal, pressed: the answer is another one than before."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from tests.stories.corners import CORNERS
from tests.stories.guard import GUARD
from tests.stories.lifts import LIFTS
from tests.stories.table import TABLE
from tests.stories.told import Told
from tests.web.test_stories import Caller, is_of_replay

from ohmcensus.core.acts import ActId
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.transfer.replay import replay

STORIES = [told for told in (*TABLE, *LIFTS, *GUARD, *CORNERS) if not is_of_replay(told) and told.refused]


class Presser(Caller):
    """Whoever presses a button under a refusal."""

    problem: dict[str, Any]

    def refusal(self, told: Told, place: int) -> dict[str, Any]:
        """Play a story until a step is refused, and return the problem that came with it."""
        for before in range(place):
            self.send(before, told.steps[before])
        answer = self.answer(place, told.steps[place])
        assert answer.status_code >= 300
        problem: dict[str, Any] = answer.get_json(force=True)
        return problem

    def press(self, act: dict[str, Any], told: Told, place: int) -> Any:
        """Press a way on as the page does: write its event down, send the step again with more, or both."""
        step = dict(told.steps[place])
        device = {"device": step.get("device", "")}
        if act["how"] == "send":
            answer = self.client.post(f"{self.path}/events", json=self.head(body=act["event"], **device))
            if act.get("then") != "again" or answer.status_code >= 300:
                return answer
        more = dict(act.get("with") or {})
        if act.get("asks"):
            more[act["asks"]] = "the plug lies before me, out"
        if "do" in step:
            return self.event(place, {**step["do"], **more}, device)
        return self.answer(place, {**step, **more})


# What is a place to go to is looked for in the browser.
PRESSED = (
    ActId.PLUG_IN_HAND,
    ActId.GIVE_REASON,
    ActId.SAY_ISOLATED,
    ActId.WAS_BEFORE,
    ActId.WAS_NOW,
    ActId.FOUND_LIVE,
    ActId.SHUT_COVER,
    ActId.OVER_IT,
    ActId.SAY_DOOR,
)


def refused() -> dict[str, tuple[Told, int]]:
    """Return for each way on that is pressed a refused step that offers it, of the shortest story that has one."""
    found: dict[str, tuple[Told, int]] = {}
    for told in sorted(STORIES, key=lambda told: len(told.steps)):
        for place, row in enumerate(replay(told.story).steps):
            found = {act.value: (told, place) for act in row.acts} | found
        if {*PRESSED} <= found.keys():
            break
    return found


def test_a_way_on_that_is_pressed_changes_the_answer(context: Context, static: Path) -> None:
    """All in one test: the stories are gone through once."""
    steps = refused()
    for act in PRESSED:
        told, place = steps[act]
        presser = Presser(context, told, static)
        problem = presser.refusal(told, place)
        row = next(row for row in problem["acts"] if row["id"] == act and row["how"] != "go")
        answer = presser.press(row, told, place)
        said = "" if answer.status_code < 300 else answer.get_json(force=True)["detail"]
        assert said != problem["detail"], f"{act}: the same refusal once more"
