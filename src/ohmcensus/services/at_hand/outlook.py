"""The outlook of a job at hand: worked out once for every room that prints it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from ohmcensus.core.course.following import Next
from ohmcensus.core.course.outlook import Outlook, outlook
from ohmcensus.core.course.what_next import what_next
from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.diagnosis.question import Objective, Reach
from ohmcensus.core.event.record import Record
from ohmcensus.core.safety import Safety, SafetyState
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.outcome_tables import table_of

# Plugging in, and proving dead again after; proving dead (ours).
TO_LIVE_MINUTES, TO_DEAD_MINUTES = 3.0, 4.0


def outlook_of(context: Context, job: JobAtHand, objective: Objective = Objective.SOONEST) -> Outlook:
    """Return what a job comes to now; what was worked out for another room holds as long as nothing has moved."""
    reach = reach_at(job, job.safety(context.clock()))
    table = table_of(context.store.folder, job.case.sheet)
    found = job.outlooks.get((reach, objective))
    if found is None or found.search.known.table is not table:
        found = outlook(job.case, job.lines, table, reach, objective)
        job.outlooks[reach, objective] = found
    return found


def next_told(row: Next | None) -> dict[str, Any] | None:
    """Return what to do next as it is written down (docs/commands.md)."""
    if row is None:
        return None
    more = {"rating": row.rating} if row.rating else {"connected": list(row.connected)} if row.connected else {}
    told: dict[str, Any] = {"kind": row.kind.value, "test": row.test, "also": list(row.also), "part": row.part}
    return {**told, **more, "do": _body(row.do), "minutes": row.minutes, "bits": row.bits}


def _body(record: Record | None) -> dict[str, Any] | None:
    """Return a record as it is sent, what is usual left out."""
    if record is None:
        return None
    return {"kind": type(record).model_fields["kind"].default, **record.model_dump(mode="json", exclude_defaults=True)}


def next_of(context: Context, job: JobAtHand) -> Next:
    """Return the one thing to do next on a job, safety, the way back and the proof included."""
    return what_next(job.case, job.safety(context.clock()), job.lines, outlook_of(context, job).next)


def reach_at(job: JobAtHand, safety: Safety) -> Reach:
    """Return where the machine stands, the minutes of safety counted."""
    return replace(
        reach_of(job.case, job.lines, safety),
        to_live=TO_LIVE_MINUTES if safety.state is SafetyState.DEAD else 0.0,
        to_dead=0.0 if safety.state is SafetyState.DEAD else TO_DEAD_MINUTES,
        live_penalty=job.settings.live_penalty,
        minute_cost=job.settings.hour_price / 60,
    )
