"""What may be answered where safety refuses a line: whatever is offered goes through, and nothing else is offered."""

from __future__ import annotations

from uuid import uuid4

import pytest
from tests.core.case_of import PROOF
from tests.working import happened, logged

from ohmcensus.core.errors import SafetyRefusalError
from ohmcensus.core.event import Body, Hazard, HazardFound, Isolated, LiveBegun, PluggedIn
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.preview_line import RefusalAnswer, TypedLine, preview_line

UNPLUG, PROVE, LOOSE, OVERRIDE = RefusalAnswer.UNPLUG, RefusalAnswer.PROVE, RefusalAnswer.LOOSE, RefusalAnswer.OVERRIDE


@pytest.fixture
def job(context: Context) -> str:
    return open_job(context, NewJob(id=uuid4(), machine="Machine 9", place="Pier", sheet="fl7-u")).id


@pytest.mark.parametrize(
    ("done", "typed", "answers"),
    [
        ((), "heater 26", [PROVE, LOOSE]),
        ((Isolated(),), "heater 26", [PROVE, LOOSE, OVERRIDE]),
        ((Isolated(),), "heater pe 1M", [PROVE, LOOSE, OVERRIDE]),
        ((Isolated(),), "between heater.a pump.b 12", [PROVE, OVERRIDE]),
        ((PluggedIn(),), "heater 26", [UNPLUG]),
        ((LiveBegun(reason="volts at the outlet"),), "heater 26", [UNPLUG]),
        ((Isolated(), HazardFound(hazard=Hazard.SHOCK)), "heater 26", [PROVE, LOOSE, OVERRIDE]),
    ],
    ids=["not cut off", "cut off", "insulation", "two points", "plugged in", "live", "a danger is open"],
)
def test_the_answers_are_those_that_go_through(
    context: Context, job: str, done: tuple[Body, ...], typed: str, answers: list[RefusalAnswer]
) -> None:
    for body in done:
        happened(context, job, body)
    shown = preview_line(context, job, TypedLine(text=typed))
    assert shown.problem
    assert shown.answers == answers
    with pytest.raises(SafetyRefusalError):
        logged(context, job, typed)
    if LOOSE in answers:
        assert not preview_line(context, job, TypedLine(text=f"{typed} loose")).problem
    if OVERRIDE in answers:
        assert logged(context, job, typed, override="the heater lies on the bench").job.asked == 1


def test_what_is_no_refusal_has_no_answers(context: Context, job: str) -> None:
    happened(context, job, Isolated())
    for text in PROOF:
        logged(context, job, text)
    for text in ("heater 26", "heater abc", "outlet 229"):
        assert preview_line(context, job, TypedLine(text=text)).answers == []
