"""Every story of SAFETY through the use cases of the API: each step, the dangers, what would be allowed."""

from __future__ import annotations

import pytest
from tests.stories.corners import CORNERS
from tests.stories.guard import GUARD
from tests.stories.lifts import LIFTS
from tests.stories.ordinary import ORDINARY, SLIPS
from tests.stories.table import TABLE
from tests.stories.told import MACHINE_WORDS, Told

from ohmcensus.services.transfer.replay import replay

# Mistakes of whoever writes, which safety has no part in: there is nothing to press.
MISTAKES = ("Input tag", "cannot have shown", "leave it out for this line", "this job has not ended")


@pytest.mark.parametrize("told", [*TABLE, *LIFTS, *GUARD, *CORNERS], ids=lambda told: told.name)
def test_a_story_comes_to_what_safety_says(told: Told) -> None:
    steps = replay(told.story).steps
    refused = {place % len(steps) for place in told.refused}
    wrong = {place: row.why or "accepted" for place, row in enumerate(steps) if row.accepted == (place in refused)}
    assert not wrong
    last = steps[-1]
    assert tuple(row.id for row in last.dangers) == told.dangers
    if told.says:
        assert told.says in steps[max(refused)].why or any(told.says in steps[place].why for place in refused)
    if told.state:
        assert last.state == told.state
    allowed = last.may.model_dump()
    assert {name: allowed[name] for name in told.may} == told.may
    assert all(row.lifted_by for step in steps for row in step.dangers)
    said = [row for row in steps if not row.accepted and not any(words in row.why for words in MISTAKES)]
    assert [row.why for row in said if MACHINE_WORDS.search(row.why)] == []
    assert [row.why for row in said if not row.acts] == [], "a refusal leads on"


@pytest.mark.parametrize("told", ORDINARY, ids=lambda told: told.name)
def test_an_ordinary_job_goes_out_as_safe_without_a_refusal(told: Told) -> None:
    steps = replay(told.story).steps
    assert [(place, row.why) for place, row in enumerate(steps) if not row.accepted] == []
    assert steps[-1].dangers == []


@pytest.mark.parametrize("told", SLIPS, ids=lambda told: told.name)
def test_an_honest_slip_is_put_right_without_a_false_entry(told: Told) -> None:
    steps = replay(told.story).steps
    refused = {place % len(steps) for place in told.refused}
    assert {place: row.why for place, row in enumerate(steps) if row.accepted == (place in refused)} == {}
    assert steps[-1].dangers == []
    assert all(steps[place].acts for place in refused)
