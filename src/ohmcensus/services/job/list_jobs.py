"""The list of jobs, page by page, with a search over everything that was written."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime

from pydantic import BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy.exc import DatabaseError
from sqlmodel import Session

from ohmcensus.core.course.following import Next
from ohmcensus.core.course.outlook import named_words
from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.safety import SafetyState, next_change, settles_at
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand, at_hand, take
from ohmcensus.services.at_hand.outcome_tables import is_being_worked_out
from ohmcensus.services.at_hand.outlook import outlook_of
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.services.at_hand.summarise import summarise, summarise_head
from ohmcensus.services.job.view import JobCard, NextView, PowerView, job_card, next_view
from ohmcensus.storage import jobs, settings, summaries
from ohmcensus.storage.code_digest import code_digest
from ohmcensus.storage.jobs import StoredJob
from ohmcensus.storage.summaries import Summary, Wanted

PAGE = 50
# So many jobs that were changed last are searched for the answer itself; the rest beside it (ours).
FIRST = 10
# What a job that cannot be read may raise: its rows are damaged, or do not fit its sheet.
UNREADABLE = (OhmcensusError, DatabaseError, ValueError, LookupError, AssertionError)


class JobsQuery(BaseModel):
    """Which jobs.

    Attributes
    ----------
    find
        Words that a job must hold.
    ended
        Those that are over instead of those that go on.
    after
        Where the page before stopped, empty for the first.
    """

    model_config = ConfigDict(extra="forbid")

    find: str = Field(default="", max_length=200)
    ended: bool = False
    after: str = Field(default="", max_length=100)


class ListedJob(JobCard):
    """A job in the list.

    Attributes
    ----------
    next_step
        The one thing to do next.
    named
        Part that is named as the fault, empty where none is or that was not worked out yet.
    problem
        Why the job cannot be read, empty for nearly all.
    """

    next_step: NextView
    named: str = ""
    problem: str = ""


class JobsPage(BaseModel):
    """One page of jobs, the last changed one first.

    Attributes
    ----------
    going, ended
        How many jobs hold the words that go on, and that are over.
    more
        Where the next page begins, empty on the last one.
    """

    jobs: list[ListedJob]
    going: int
    ended: int
    more: str


@dataclass(frozen=True, slots=True)
class _Fresh:
    """A card that was worked out for an answer, and from when to when it holds."""

    version: str
    since: datetime
    until: datetime | None
    card: ListedJob


class _Kept(BaseModel):
    """A card as it is kept: of a moment from which on the clock changes nothing, and what the search wants next."""

    settles: str
    card: ListedJob
    act: Next | None = None


def list_jobs(context: Context, query: JobsQuery | None = None) -> JobsPage:
    """Return one page of the jobs that hold every word of a search.

    Searched are machine, place, customer, complaint, plate, readings as typed, notes and events, by the beginnings of
    their words. What hangs on the clock is worked out now; the rest comes from the summary of each job.

    Raises
    ------
    InputError
        If there is no such page.
    """
    asked = query or JobsQuery()
    now = context.clock()
    with context.store.read() as session:
        wanted = _wanted(session, asked)
        rows = summaries.page(session, wanted)
        setup = settings.revision(session)
        with context.listing:
            page = [_listed(context, session, row, setup, now, is_first=at < FIRST) for at, row in enumerate(rows)]
        going, over = summaries.numbers_of(session, wanted)
    more = f"{rows[-1].changed_at} {rows[-1].job_id}" if len(rows) == PAGE else ""
    return JobsPage(jobs=page, going=going, ended=over, more=more)


def _wanted(session: Session, asked: JobsQuery) -> Wanted:
    words = tuple(summaries.searchable(asked.find.split()))
    titles = {sheet_id: sheet.title.casefold() for sheet_id, sheet in sheets_in(session).items()} if words else {}
    named = tuple(tuple(sheet for sheet, title in titles.items() if word.casefold() in title) for word in words)
    moment, _, job_id = asked.after.partition(" ")
    if asked.after and not job_id:
        what = f"no page of jobs begins at '{asked.after[:40]}'"
        raise InputError(what=what, remedy="begin with the first page", field="after")
    return Wanted(asked.ended, words, named, (moment, job_id), PAGE)


def _listed(
    context: Context, session: Session, row: Summary, setup: int, now: datetime, *, is_first: bool
) -> ListedJob:
    """Return the card of a job: the kept one where it holds now, else one that is worked out."""
    kept, version = _kept(row), version_of(row.revision, setup)
    is_current = row.version == version
    if kept is not None and is_current and datetime.fromisoformat(kept.settles) <= now:
        return kept.card
    fresh: _Fresh | None = context.cards.get(row.job_id)
    if fresh is not None and fresh.version == version and fresh.since <= now and (not fresh.until or now < fresh.until):
        return fresh.card
    if not is_current:
        context.later(("card", row.job_id), lambda: keep_card(context, row.job_id), after_s=2.0)
    known = kept if kept is not None and kept.card.revision == row.revision else None
    named, act = (known.card.named, known.act) if known is not None else ("", None)
    stored = jobs.find(session, row.job_id)
    if stored is None:
        return _unreadable(row, None, "its machine or its place is gone")
    try:
        job = at_hand(context, session, stored)
        if known is None and is_first:
            named, act = _searched(context, job)
        card = _card(job, now, act, named)
    except UNREADABLE as error:
        why = str(error).splitlines()[0][:200] if str(error) else type(error).__name__
        return _unreadable(row, stored, why)
    context.cards[row.job_id] = _Fresh(version, now, next_change(job.walk, now), card)
    return card


def keep_card(context: Context, job_id: str) -> None:
    """Work out what the list shows of a job, with the part that is named, and keep it.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
        setup = settings.revision(session)
    settles = settles_at(job.walk)
    now = max(settles, context.clock())
    named, act = _searched(context, job)
    card = _card(job, now, act, named)
    body = _Kept(settles=settles.isoformat(), card=card, act=act).model_dump_json()
    with context.store.write() as session:
        summarise(session, job)
        summarise_head(session, job)
        summaries.keep_card(session, job_id, body, version_of(job.stored.revision, setup))
    context.cards.pop(job_id, None)


def _searched(context: Context, job: JobAtHand) -> tuple[str, Next | None]:
    """Return who is named and what is next, nothing of a job that is over or whose type is being worked out."""
    if job.case.ended is not None or is_being_worked_out(context, job.case.sheet):
        return "", None
    found = outlook_of(context, job)
    return named_words(found, job.case.sheet), found.next


def _card(job: JobAtHand, now: datetime, act: Next | None, named: str) -> ListedJob:
    return ListedJob(**dict(job_card(job, now)), next_step=next_view(job, now, act), named=named)


def version_of(revision: int, setup: int) -> str:
    """Return what a card is worked out from: revision of the job and of the setup, and the code."""
    return f"{revision} {setup} {code_digest()}"


def _kept(row: Summary) -> _Kept | None:
    """Return the kept card of a job, None where there is none that this version reads."""
    with suppress(ValidationError):
        return _Kept.model_validate_json(row.card) if row.card else None
    return None


def _unreadable(row: Summary, stored: StoredJob | None, why: str) -> ListedJob:
    """Return a card that says that its job cannot be read."""
    return ListedJob(
        id=row.job_id,
        machine=stored.machine if stored else f"Job {row.job_id[:8]}",
        place=stored.place if stored else "",
        customer=stored.customer if stored else "",
        sheet_title=stored.sheet_id if stored else "",
        complaint="",
        symptoms=[],
        changed_at=row.changed_at,
        revision=row.revision,
        safety=SafetyState.NOT_PROVED,
        power=PowerView(
            state=SafetyState.NOT_PROVED, at="", until="", reason="", lapsed="", cut="", shout="", is_shut=True
        ),
        hazards=[],
        next_step=NextView(stage="intake", words=""),
        ended=None,
        asked=0,
        lines=0,
        outside=0,
        problem=f"This job cannot be read ({why}). Run 'ohmcensus check', then restore the last backup aside.",
    )
