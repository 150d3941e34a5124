"""Everything the Codes screen shows: schemes, the ways in, tests, and what was read."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.codes import Click, follow
from ohmcensus.core.codes.sequence import MOST_CLICKS
from ohmcensus.core.errors import InputError, UnknownNameError
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.codes.view import (
    AttemptView,
    CodesView,
    DecodedCode,
    attempt_view,
    cycle_view,
    decoded,
    known_scheme,
    read_codes,
    scheme_view,
    sequence_view,
)
from ohmcensus.services.job.view import job_view

Code = Annotated[str, Trimmed(60, 1)]


class Pattern(BaseModel):
    """Lamps as seen, or a code whose lamps are asked for: one of the two."""

    model_config = ConfigDict(extra="forbid")

    scheme: str
    pattern: Code | None = None
    code: Code | None = None


class Clicks(BaseModel):
    """An attempt so far."""

    model_config = ConfigDict(extra="forbid")

    sequence: str
    clicks: list[Click] = Field(max_length=MOST_CLICKS)


def show_codes(context: Context, job_id: str) -> CodesView:
    """Return what there is to listen to, and what was heard.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    case, service = job.case, job.case.sheet.service
    blocking = [row for row in job.safety(context.clock()).dangers if row.forbids_power]
    return CodesView(
        job=job_view(job, context.clock()),
        schemes=[scheme_view(case.sheet, scheme.id) for scheme in service.schemes],
        sequences=[sequence_view(case, sequence) for sequence in service.sequences],
        cycles=[cycle_view(case, cycle) for cycle in service.cycles],
        read=read_codes(case),
        no_power=f"{blocking[0].words}: {blocking[0].lifted_by}" if blocking else "",
    )


def decode(context: Context, job_id: str, asked: Pattern) -> DecodedCode:
    """Return the code of a pattern, or the pattern of a code, with its meaning.

    Raises
    ------
    InputError
        If the scheme cannot show it, or not exactly one of both is given.
    UnknownNameError
        If the machine has no such scheme.
    """
    with context.store.read() as session:
        sheet = take(context, session, job_id).case.sheet
    if (asked.pattern is None) == (asked.code is None):
        raise InputError(what="one of pattern and code is needed", remedy="send one of the two", field="pattern")
    if asked.pattern is not None:
        return decoded(sheet, asked.scheme, known_scheme(sheet, asked.scheme).decode(asked.pattern))
    return decoded(sheet, asked.scheme, str(asked.code))


def coach(context: Context, job_id: str, clicks: Clicks) -> AttemptView:
    """Follow an attempt to enter a service mode; nothing is stored.

    Raises
    ------
    UnknownNameError
        If the machine has no such sequence.
    """
    with context.store.read() as session:
        sheet = take(context, session, job_id).case.sheet
    sequence = sheet.service.sequence(clicks.sequence)
    if sequence is None:
        known = ", ".join(row.id for row in sheet.service.sequences) or "none"
        what = f"no sequence '{clicks.sequence[:40]}' on this machine"
        raise UnknownNameError(what=what, remedy=f"known are {known}", field="sequence")
    return attempt_view(follow(sequence, clicks.clicks))
