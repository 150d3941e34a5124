"""The next thing on the way to a machine that is proved dead."""

from __future__ import annotations

from ohmcensus.core.course.following import Next, NextKind
from ohmcensus.core.event import CutOff, Isolated, LiveEnded, StepTicked
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.at_plug import is_made_at_plug
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.safety import Safety, SafetyState
from ohmcensus.core.safety.series_rows import series_rows
from ohmcensus.core.safety.steps import StepKind, safe_steps


def to_dead(case: Case, safety: Safety, then: str = "", before: str = "") -> Next:
    """Return what comes next until the machine is proved dead: cut off, what is ticked, the series.

    Parameters
    ----------
    case, safety
        Everything observed, and where the machine stands.
    then
        What it is wanted for, in words.
    before
        The test or look that it is wanted for, by its id.
    """
    said = "Prove it dead again" if safety.lapsed else "Make it safe and prove it dead"
    words = f"{said}, then {then[:1].lower()}{then[1:]}" if then else said
    if not safety.isolated:
        body = LiveEnded() if safety.state is SafetyState.LIVE else Isolated()
        return Next(NextKind.SAFE, "", words, do=body, before=before)
    step = next(
        (row for row in safe_steps(case, safety) if row.kind is StepKind.TICK and not (row.is_done or row.is_optional)),
        None,
    )
    if step is not None:
        return Next(NextKind.SAFE, "", words, do=StepTicked(step=step.id), before=before)
    due = next((row.test for row in series_rows(case, safety) if row.is_due), "")
    return Next(NextKind.SAFE, "", words, test=due, before=before)


def is_admitted_at(test: MachineTest, safety: Safety) -> bool:
    """Tell whether a test of a dead circuit is made as the machine stands: proved dead, or at its plug in the hand."""
    if safety.state is SafetyState.DEAD:
        return True
    in_hand = safety.cut is CutOff.PLUG_IN_HAND and safety.walk.is_hand_proved
    return in_hand and is_made_at_plug(test.between)
