"""A job at hand: rows turned into a case, kept as long as neither the job nor the setup has moved on.

The job's revision and the setup's revision are read from the store every time, so that a job at hand is
never older than what another process wrote.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property

from sqlmodel import Session

from ohmcensus.core.course.outlook import Outlook
from ohmcensus.core.diagnosis.question import Objective, Reach
from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Event, RecordWithdrawn
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.cover_minutes import Timed
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import CensusLine, census_lines
from ohmcensus.core.judgement.census_sheet import Answer
from ohmcensus.core.limits.profile import chosen_profile
from ohmcensus.core.meter import Meter
from ohmcensus.core.safety import Safety, Walk, safety_at, stepped, walk_of
from ohmcensus.core.safety.evidence import leak_tests_as_lines
from ohmcensus.core.safety.state import at_present
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import frames_in
from ohmcensus.services.at_hand.settings import Settings, known_meters, settings_in
from ohmcensus.services.at_hand.sheets import chosen, sheets_in
from ohmcensus.storage import cover_times, events, jobs, notes, readings
from ohmcensus.storage.jobs import StoredJob

MOST_AT_HAND = 128


@dataclass(frozen=True)
class JobAtHand:
    """Everything known of a job at one revision.

    Parameters
    ----------
    stored
        The job's own columns.
    case
        Sheet, readings, events.
    notes
        Standing note by line.
    settings, meters
        Setup; every known meter by id.
    known
        Answers that were judged before, by the id of their reading.
    before
        The log as it was read before the last record, and that record; None where it is read anew.
    """

    stored: StoredJob
    case: Case
    notes: Mapping[str, str]
    settings: Settings
    meters: Mapping[str, Meter]
    known: Mapping[str, Answer] = field(default_factory=dict)
    before: tuple[Walk, Reading | Event | None] | None = None

    @cached_property
    def lines(self) -> tuple[CensusLine, ...]:
        """The census sheet that follows from sheet and readings."""
        return census_lines(self.case, self.known, leak_tests_as_lines(self.case))

    @cached_property
    def outlooks(self) -> dict[tuple[Reach, Objective], Outlook]:
        """What the job comes to, by where the machine stands and what the next question is chosen for."""
        return {}

    @cached_property
    def counted(self) -> tuple[int, int]:
        """How many lines have a reading, and how many of those are surely outside."""
        verdicts = [line.verdict for line in self.lines if line.verdict]
        return len(verdicts), sum(verdict.is_outside for verdict in verdicts)

    @cached_property
    def walk(self) -> Walk:
        """The log of the job, read to its end."""
        if self.before is None:
            return walk_of(self.case)
        walk, item = self.before
        walk = at_present(walk, self.case)
        return walk if item is None else stepped(walk, item)

    def safety(self, now: datetime) -> Safety:
        """Return where the job stands at a moment."""
        return safety_at(self.case, now, self.walk)

    def with_reading(self, stored: StoredJob, row: Reading) -> JobAtHand:
        """Return the job after one more row."""
        return self._after(stored, replace(self.case, readings=(*self.case.readings, row)), row)

    def with_case(self, case: Case) -> JobAtHand:
        """Return the job with its case in another frame, before anything was written in it."""
        return self if case is self.case else replace(self, case=case, before=(self.walk, None))

    def _after(self, stored: StoredJob, case: Case, item: Reading | Event) -> JobAtHand:
        """Return the job after one more record; what was judged before is kept."""
        has_lines = "lines" in self.__dict__
        known = {a.reading.id: a for line in self.lines for a in line.every} if has_lines else self.known
        return replace(self, stored=stored, case=case, known=known, before=(self.walk, item))

    def with_covers(self, stored: StoredJob, timed: Mapping[str, Timed]) -> JobAtHand:
        """Return the job with what covers of its type took on other jobs since."""
        return replace(self, stored=stored, case=replace(self.case, timed=timed), before=(self.walk, None))

    def with_note(self, stored: StoredJob, line: str, text: str) -> JobAtHand:
        """Return the job after a note."""
        return replace(self, stored=stored, notes={**self.notes, line: text}, before=(self.walk, None))

    def with_event(self, stored: StoredJob, event: Event) -> JobAtHand:
        """Return the job after one more event."""
        after = self._after(stored, replace(self.case, events=(*self.case.events, event)), event)
        # What is taken back was read before: the log is read anew without it.
        return replace(after, known={}, before=None) if isinstance(event.body, RecordWithdrawn) else after

    def as_of(self, revision: int) -> JobAtHand:
        """Return the job as it was at a revision: what was written later, or held only later, is left out."""
        frame = next((row for row in reversed(self.case.frames) if row.order <= revision), self.case.present)
        case = replace(
            self.case,
            sheet=frame.sheet,
            complaint=frame.complaint,
            plate=frame.plate,
            profile=frame.profile,
            readings=tuple(row for row in self.case.readings if row.order <= revision),
            events=tuple(event for event in self.case.events if event.order <= revision),
            frames=tuple(frame for frame in self.case.frames if frame.order <= revision),
        )
        stored = replace(self.stored, revision=revision, changed_at=case.events[-1].at if case.events else "")
        return replace(self, stored=stored, case=case, before=None)


def take(context: Context, session: Session, job_id: str) -> JobAtHand:
    """Return a job as the store has it now.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    return at_hand(context, session, jobs.get(session, job_id))


def built(session: Session, job_id: str) -> JobAtHand:
    """Return a job as a session that writes sees it; it is not kept at hand, since it may yet be rolled back."""
    return _built(session, jobs.get(session, job_id))


def at_hand(context: Context, session: Session, stored: StoredJob) -> JobAtHand:
    """Return a stored job with its case, from what is at hand where that is of the same revisions."""
    with context.lock:
        found: JobAtHand | None = context.at_hand.pop(stored.id, None)
        if found is not None:
            context.at_hand[stored.id] = found
    if found is None or replace(found.stored, covers_revision=stored.covers_revision) != stored:
        found = _built(session, stored)
        put(context, found)
    elif found.stored != stored:
        found = found.with_covers(stored, cover_times.of_sheet(session, stored.sheet_id, but=stored.id))
        put(context, found)
    return found


def refuse_ended(job: JobAtHand) -> None:
    """Refuse to write on a job that is over.

    Raises
    ------
    InputError
        With what to do.
    """
    if job.case.ended is not None:
        raise InputError(what="this job has ended", remedy="reopen it to go on", field="job")


def used_id(used: str, what: str) -> InputError:
    """Return the refusal of an id that belongs to something else: sent twice means the very same."""
    return InputError(what=f"the id {used} belongs to another {what}", remedy="send a new id", field="id")


def put(context: Context, job: JobAtHand) -> None:
    """Keep a job at hand; only what the store has committed may be put here."""
    with context.lock:
        context.at_hand.pop(job.stored.id, None)
        while len(context.at_hand) >= MOST_AT_HAND:
            context.at_hand.pop(next(iter(context.at_hand)), None)
        context.at_hand[job.stored.id] = job


def forget(context: Context, job_id: str) -> None:
    """Let go of a job at hand: what was written beside its revision is read anew."""
    with context.lock:
        context.at_hand.pop(job_id, None)


def _built(session: Session, stored: StoredJob) -> JobAtHand:
    """Build a job from its rows."""
    settings = settings_in(session)
    sheets = sheets_in(session)
    sheet = chosen(sheets, stored.sheet_id)
    case = Case(
        sheet=sheet,
        readings=tuple(reading for _, reading in readings.of_job(session, stored.id)),
        celsius=settings.ambient_celsius,
        complaint=Complaint.model_validate_json(stored.complaint),
        plate=DataPlate.model_validate_json(stored.plate),
        events=tuple(events.of_job(session, stored.id)),
        profile=chosen_profile(settings.profile, tuple(settings.own_profiles), sheet.volts),
        timed=cover_times.of_sheet(session, stored.sheet_id, but=stored.id),
        frames=frames_in(session, stored.id, sheets, sheet),
    )
    noted = {line: note.text for line, note in notes.standing(notes.of_job(session, stored.id)).items()}
    meters = {meter.id: meter for meter in known_meters(session)}
    return JobAtHand(stored, case, noted, settings, meters)
