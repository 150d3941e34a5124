"""Taking back what was done last: what can be, and never what tells how the machine stands."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.acts import ActId, go
from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import (
    Attended,
    Changed,
    Checked,
    CircuitNoted,
    CodesRead,
    ConnectorNoted,
    ConnectorTicked,
    CostsNoted,
    CycleTicked,
    EntryTried,
    Event,
    InsulationNotAllowed,
    PhotosChosen,
    ProofMade,
    RecordWithdrawn,
    RunMade,
    RunWatched,
    RunWithdrawn,
    Skipped,
    StepTicked,
    StripBack,
    StripStep,
)
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.job.record_words import record_words
from ohmcensus.core.safety.state import walk_of
from ohmcensus.core.safety.walk import Walk

# Readings and leak tests have a withdrawal of their own; what states power, a danger or an end is put right in words.
CAN_BE_UNDONE = (
    Changed,
    Checked,
    CircuitNoted,
    CodesRead,
    ConnectorNoted,
    ConnectorTicked,
    CostsNoted,
    CycleTicked,
    EntryTried,
    InsulationNotAllowed,
    PhotosChosen,
    ProofMade,
    RunWatched,
    Skipped,
    StepTicked,
    StripBack,
    StripStep,
)
_NOT_AN_ACT = (Attended, RecordWithdrawn, RunWithdrawn)


def last_act(case: Case) -> Reading | Event | None:
    """Return what was done last and counts still: a reading or an event; None where it cannot be taken back."""
    gone = case.withdrawn | case.withdrawn_runs
    acts = [event for event in case.events if event.id not in gone and not isinstance(event.body, _NOT_AN_ACT)]
    both: list[Reading | Event] = [*case.standing, *acts]
    last = max(both, key=lambda row: row.order, default=None)
    if isinstance(last, Event) and not isinstance(last.body, (*CAN_BE_UNDONE, RunMade)):
        return None
    return last


def refuse_withdrawal(case: Case, body: RecordWithdrawn) -> None:
    """Refuse to take back what cannot be.

    Raises
    ------
    InputError
        For a record that is not there, one that was not the last act, or one of a kind that is put right otherwise.
    SafetyRefusalError
        Where the machine would stand safer without it: power, a danger or a voltage that it told of is not undone.
    """
    event = next((row for row in case.events if row.id == body.record), None)
    if event is None or event.id in case.withdrawn:
        raise InputError(what="there is nothing to undo", remedy="look at what was done last", field="record")
    said = record_words(case, event.body)
    if not isinstance(event.body, CAN_BE_UNDONE):
        raise InputError(what=f"'{said}' cannot be undone", remedy="note what is so instead", field="record")
    last = last_act(case)
    if last is None or last.id != event.id:
        what = f"'{said}' was not the last thing done"
        raise InputError(what=what, remedy="undo what came after it first, or note what is so now", field="record")
    until = replace(case, events=tuple(row for row in case.events if row.order <= event.order))
    without = replace(until, events=tuple(row for row in until.events if row.id != event.id))
    if _is_safer(walk_of(without), walk_of(until)):
        what = f"'{said}' tells how the machine stands, and is not undone"
        acts = (go(ActId.PULL_PLUG, "Say how it stands, in Safe", "safe", "isolate"),)
        raise SafetyRefusalError(what=what, remedy="note in Safe what is so now", field="record", acts=acts)


def _is_safer(after: Walk, before: Walk) -> bool:
    """Tell whether a walk says less of power, dangers and voltages than another, or more of a machine cut off."""
    causes = {(row.id, row.line, row.since) for row in before.found}
    return (
        (before.is_live, bool(before.powered), before.cut, before.cut_order)
        != (after.is_live, bool(after.powered), after.cut, after.cut_order)
        or (before.proved is None and after.proved is not None)
        or (after.is_hand_proved and not before.is_hand_proved)
        or bool(causes - {(row.id, row.line, row.since) for row in after.found})
        or (before.trip, before.reclosed) != (after.trip, after.reclosed)
        or len(before.shouts) > len(after.shouts)
        or not before.charged.keys() <= after.charged.keys()
    )
