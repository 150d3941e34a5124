"""What the technician says about voltage on the machine."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ohmcensus.core.errors import InputError
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.at_hand import put, take
from ohmcensus.services.context import Context
from ohmcensus.services.show_trace import TraceView, trace_view
from ohmcensus.storage import jobs


class SafetyStatement(BaseModel):
    """A statement about voltage; live needs a reason."""

    model_config = ConfigDict(extra="forbid")

    revision: int = Field(ge=1, strict=True)
    state: SafetyState
    reason: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""


def state_safety(context: Context, job_id: str, statement: SafetyStatement) -> TraceView:
    """Write the statement down.

    Raises
    ------
    InputError
        If live mode is asked for without a reason.
    StaleRevisionError
        If the job has moved on.
    """
    if statement.state is SafetyState.LIVE and not statement.reason:
        remedy = "say what has to be measured under voltage"
        raise InputError(what="live mode needs a reason", remedy=remedy, field="reason")
    with context.store.write() as session:
        job = take(context, session, job_id)
        now, said = context.now(), statement.state.value
        stored = jobs.advance(
            session, job.stored, statement.revision, now, safety=said, safety_at=now, safety_reason=statement.reason
        )
        after = job.with_safety(stored)
    put(context, after)
    return trace_view(after, changed="")
