"""A story told again through the same use cases that the API calls, on a store in memory."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from pydantic import BaseModel, SerializeAsAny, TypeAdapter, ValidationError

from ohmcensus.core.acts import ActId
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.errors import InputError, OhmcensusError
from ohmcensus.core.event import Body, RecordWithdrawn, RunDoubted, RunWithdrawn, When
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.proof import blocking
from ohmcensus.core.safety import DangerId, may
from ohmcensus.exchange.sheet_yaml import write_sheet
from ohmcensus.exchange.story_file import NAMES_RECORD, Step, Story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.frames import with_frame
from ohmcensus.services.at_hand.job import JobAtHand, forget, take
from ohmcensus.services.at_hand.outlook import next_of, next_told, outlook_of
from ohmcensus.services.at_hand.sheets import FILES, all_sheets, find_sheet
from ohmcensus.services.event.record_event import NewEvent, write_event
from ohmcensus.services.event.take_leak_test import NewLeakTest, write_leak_test
from ohmcensus.services.intake.keep_intake import NewIntake, keep_intake
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, write_reading, write_withdrawal
from ohmcensus.services.reading.preview_line import SaidBeside
from ohmcensus.services.setup.change_settings import keep_settings, show_settings
from ohmcensus.services.transfer.export_job import export_job
from ohmcensus.services.transfer.import_job import import_file
from ohmcensus.storage import sheets
from ohmcensus.storage.database import FILE_NAME, memory_store, scratch_store

_BODY: TypeAdapter[Body] = TypeAdapter(Body)
BAG = ["multimeter-6000", "appliance-tester"]
MACHINE, PLACE = "Machine of the story", "Place of the story"
_ACTS = ("read", "leak_test", "do", "withdraw", "doubt", "intake", "limits", "sheet", "plate", "serial", "carry")
# The serial number of a machine that was here before.
SERIAL = "S-0001"


class DangerAnswer(BaseModel):
    """A danger that stands, and the one measurement that lifts it."""

    id: str
    words: str
    lifted_by: str


class MayAnswer(BaseModel):
    """What would be accepted now."""

    power: bool
    live: bool
    run: bool
    sign_off: bool


class StepAnswer(BaseModel):
    """What came of a step, the ways on where it was refused, and how the job stands after it."""

    accepted: bool
    why: str
    acts: list[ActId] = []
    state: str
    dangers: list[DangerAnswer]
    may: MayAnswer


class OutlookAnswer(StepAnswer):
    """The same with how far the search is: who is named, and what to do next."""

    named: list[str]
    standing: Standing
    next: dict[str, Any] | None


class ReplayAnswer(BaseModel):
    """Every step of a story."""

    steps: list[SerializeAsAny[StepAnswer]]


@dataclass
class _Teller:
    """A job in memory with the clock of its story.

    Parameters
    ----------
    context, job_id
        Where.
    clock
        The story's clock: one moment.
    written
        Id of the reading or leak test that each step left behind.
    known
        The job as the last step left it, None where it has to be asked for.
    places
        What is closed when the story is over: its stores and their folders.
    """

    context: Context
    job_id: str
    clock: list[datetime]
    places: ExitStack = field(default_factory=ExitStack)
    written: dict[int, tuple[str, str]] = field(default_factory=dict)
    known: JobAtHand | None = None

    @property
    def now(self) -> datetime:
        """The story's clock."""
        return self.clock[0]

    def revision(self) -> int:
        """Return the revision of the job."""
        return self.job().stored.revision

    def job(self) -> JobAtHand:
        """Return the job as it stands."""
        if self.known is None:
            with self.context.store.read() as session:
                self.known = take(self.context, session, self.job_id)
        return self.known


def replay(story: Story, *, with_next: bool = False) -> ReplayAnswer:
    """Tell a story again.

    Parameters
    ----------
    story
        What is done, step by step.
    with_next
        Whether each step says how far the search is.

    Raises
    ------
    OhmcensusError
        If its sheet, its limits or a former danger is unknown; what a step does wrong is part of the answer.
    """
    return ReplayAnswer(steps=list(played(story, with_next=with_next)))


def played(story: Story, *, with_next: bool = False) -> Iterator[StepAnswer]:
    """Yield what comes of each step, as it is told; what may be raised is as in ``replay``."""
    with _told(story) as teller:
        for place, step in enumerate(story.steps):
            answer = _answer(teller, place, step)
            yield _with_outlook(teller, answer) if with_next else answer


def _with_outlook(teller: _Teller, answer: StepAnswer) -> OutlookAnswer:
    """Return the same answer with how far the search is."""
    found = outlook_of(teller.context, teller.job())
    told = {
        "named": list(found.named),
        "standing": found.standing,
        "next": _by_places(teller, next_told(next_of(teller.context, teller.job()))),
    }
    return OutlookAnswer(**answer.model_dump(), **told)


def _by_places(teller: _Teller, following: dict[str, Any] | None) -> dict[str, Any] | None:
    """Return what is next with the record that it names by the place of its step, as a story names it."""
    body = following["do"] if following is not None else None
    field_name = NAMES_RECORD.get(body["kind"]) if body is not None else None
    if following is None or body is None or field_name is None:
        return following
    place = next((at for at, (_, record) in teller.written.items() if record == body[field_name]), body[field_name])
    return {**following, "do": {**body, field_name: place}}


@contextmanager
def _told(story: Story) -> Iterator[_Teller]:
    """Yield a job as a story begins, the stories before it told on the same machine."""
    strange = [name for name in story.former.ended_unsafe if name not in set(DangerId)]
    if strange:
        known = ", ".join(DangerId)
        raise InputError(what=f"no danger '{strange[0][:40]}'", remedy=f"known are {known}", field="former")
    clock = [story.at]
    with ExitStack() as places:
        folder = Path(places.enter_context(tempfile.TemporaryDirectory()))
        store = memory_store(folder)
        places.callback(store.close)
        context = Context(store, clock=lambda: clock[0])
        for number, earlier in enumerate(story.before):
            teller = _begun(context, earlier, clock, places, number + 1, SERIAL)
            for place, step in enumerate(earlier.steps):
                _answer(teller, place, step)
        yield _begun(context, story, clock, places, 0, SERIAL if story.before else "")


def _begun(
    context: Context, story: Story, clock: list[datetime], places: ExitStack, number: int, serial: str
) -> _Teller:
    """Return a job as its story begins, on a machine of some serial number."""
    clock[0] = story.at
    teller = _Teller(context, str(uuid4()), clock, places)
    settings = show_settings(context).model_copy(update={"bag": BAG, "profile": story.limits or ""})
    keep_settings(context, settings)
    machine = f"{MACHINE} {number}" if number else MACHINE
    new = NewJob(id=UUID(teller.job_id), machine=machine, place=PLACE, sheet=_sheet_of(context, story), serial=serial)
    open_job(context, new)
    if story.complaint != Complaint():
        _intake(teller, complaint=story.complaint)
    if story.former.ended_unsafe:
        _inherit(teller, story.former.ended_unsafe)
    return teller


def _sheet_of(context: Context, story: Story) -> str:
    """Return the id of the story's sheet; one that it names by its file is put into the store first."""
    if not story.sheet.endswith(FILES):
        return story.sheet
    sheet = find_sheet(story.sheet)
    if sheet.id not in all_sheets():
        with context.store.write() as session:
            sheets.keep(session, sheet.id, write_sheet(sheet))
    return sheet.id


def _answer(teller: _Teller, place: int, step: Step) -> StepAnswer:
    """Return what comes of a step."""
    _advance(teller, step)
    why, acts = "", list[ActId]()
    try:
        _do(teller, place, step)
    except OhmcensusError as error:
        why, acts = str(error), [act.id for act in error.acts]
    except ValidationError as error:
        first = error.errors()[0]
        why = f"{'.'.join(str(at) for at in first['loc'])}: {first['msg']}"
    job = teller.job()
    safety = job.safety(teller.now)
    allowed = may(job.case, safety, sign_off=not blocking(job.case, safety), device=step.device)
    return StepAnswer(
        accepted=not why,
        why=why,
        acts=acts,
        state=safety.state,
        dangers=[DangerAnswer(id=row.id, words=row.words, lifted_by=row.lifted_by) for row in safety.dangers],
        may=MayAnswer(power=allowed.power, live=allowed.live, run=allowed.run, sign_off=allowed.sign_off),
    )


def _advance(teller: _Teller, step: Step) -> None:
    """Move the story's clock: a minute a step, unless the step says otherwise."""
    minutes = 1.0 if step.minutes is None and step.wait_minutes is None else 0.0
    minutes += (step.minutes or 0.0) + (step.wait_minutes or 0.0)
    teller.clock[0] = step.at if step.at is not None else teller.now + timedelta(minutes=minutes)


def _do(teller: _Teller, place: int, step: Step) -> None:
    named = [name for name in _ACTS if getattr(step, name) is not None]
    if len(named) > 1:
        what = f"step {place} names {' and '.join(named)}"
        raise InputError(what=what, remedy="one act a step", field="steps")
    if step.read is not None:
        _read(teller, place, step)
    elif step.leak_test is not None:
        _leak_test(teller, place, step)
    elif step.do is not None:
        body = _BODY.validate_python(_named(teller, step.do))
        teller.written[place] = (body.kind, _write(teller, step, body))
    elif step.withdraw is not None:
        _withdraw(teller, step, step.withdraw)
    elif step.doubt is not None:
        _write(teller, step, RunDoubted(run=_leak_test_of(teller, step.doubt)))
    elif step.limits is not None:
        keep_settings(teller.context, show_settings(teller.context).model_copy(update={"profile": step.limits}))
        teller.known = None
    elif step.carry:
        _carry(teller)
    else:
        _change_intake(teller, step)


def _change_intake(teller: _Teller, step: Step) -> None:
    """Write the intake anew: another complaint, sheet, plate or serial number."""
    if step.intake is not None:
        _intake(teller, complaint=Complaint.model_validate(step.intake))
    elif step.sheet is not None:
        _intake(teller, sheet=step.sheet)
    elif step.plate is not None:
        _intake(teller, plate=DataPlate.model_validate(step.plate))
    elif step.serial is not None:
        _intake(teller, plate=teller.job().case.plate.model_copy(update={"serial": step.serial}))


def _carry(teller: _Teller) -> None:
    """Export the job, and let the story go on in another store that imported it."""
    folder = Path(teller.places.enter_context(tempfile.TemporaryDirectory()))
    file = folder / "carried.json"
    export_job(teller.context, teller.job_id, file)
    store = scratch_store(folder / FILE_NAME, folder)
    teller.places.callback(store.close)
    clock = teller.clock
    there = Context(store, clock=lambda: clock[0])
    keep_settings(there, show_settings(teller.context))
    import_file(there, file)
    teller.context, teller.known = there, None


def _named(teller: _Teller, body: dict[str, Any]) -> dict[str, Any]:
    """Return an event's body with the record that it names by the place of its step in the story."""
    field_name = NAMES_RECORD.get(str(body.get("kind")))
    place = body.get(field_name) if field_name else None
    is_place = isinstance(place, int) or (isinstance(place, str) and place.isdecimal())
    if field_name is None or place is None or not is_place:
        return body
    kind, record = teller.written.get(int(place), ("", ""))
    if not kind or (kind not in {"strip_step", "leak test", "run_made"} and body["kind"] != "record_withdrawn"):
        raise InputError(what=f"step {place} took nothing off", remedy="name one that did", field="steps")
    return {**body, field_name: record}


def _read(teller: _Teller, place: int, step: Step) -> None:
    supersedes = None if step.correct is None else UUID(_of_step(teller, step.correct, "reading"))
    new = NewReading(
        id=uuid4(),
        revision=teller.revision(),
        text=step.read or "",
        meter=step.meter,
        override=step.override,
        supersedes=supersedes,
        was=When(step.was) if step.was is not None else None,
        says=SaidBeside(**step.says.model_dump()) if step.says is not None else SaidBeside(),
        device=step.device,
    )
    teller.known = write_reading(teller.context, teller.job_id, new, who=step.who)
    teller.written[place] = ("reading", str(new.id))


def _leak_test(teller: _Teller, place: int, step: Step) -> None:
    new = NewLeakTest(
        id=uuid4(),
        revision=teller.revision(),
        line=step.leak_test or "",
        meter=step.meter or "",
        are_wires_insulated=True,
        device=step.device,
    )
    teller.known = write_leak_test(teller.context, teller.job_id, new, who=step.who)
    teller.written[place] = ("leak test", str(new.id))


def _write(teller: _Teller, step: Step, body: Body) -> str:
    new = NewEvent(id=uuid4(), revision=teller.revision(), body=body, device=step.device)
    teller.known = write_event(teller.context, teller.job_id, new, who=step.who)
    return str(new.id)


def _withdraw(teller: _Teller, step: Step, place: int) -> None:
    kind, record = teller.written.get(place, ("", ""))
    if kind in _RUNS:
        _write(teller, step, RunWithdrawn(run=record))
        return
    if kind not in {"", "reading"}:
        _write(teller, step, RecordWithdrawn(record=record))
        return
    reading = _of_step(teller, place, "reading")
    new = Withdrawal(id=uuid4(), revision=teller.revision(), device=step.device)
    teller.known = write_withdrawal(teller.context, teller.job_id, reading, new, who=step.who)


_RUNS = frozenset({"leak test", "run_made"})


def _leak_test_of(teller: _Teller, place: int) -> str:
    return _of_step(teller, place, "leak test", _RUNS)


def _of_step(teller: _Teller, place: int, wanted: str, kinds: frozenset[str] = frozenset()) -> str:
    kind, record = teller.written.get(place, ("", ""))
    if kind not in (kinds or {wanted}):
        raise InputError(what=f"step {place} left no {wanted}", remedy="name one that was accepted", field="steps")
    return record


def _intake(
    teller: _Teller, complaint: Complaint | None = None, sheet: str = "", plate: DataPlate | None = None
) -> None:
    job = teller.job()
    new = NewIntake(
        intake_revision=job.stored.intake_revision,
        machine=job.stored.machine,
        place=job.stored.place,
        sheet=sheet or job.stored.sheet_id,
        complaint=job.case.complaint if complaint is None else complaint,
        plate=job.case.plate if plate is None else plate,
    )
    keep_intake(teller.context, teller.job_id, new)
    teller.known = None


def _inherit(teller: _Teller, dangers: list[str]) -> None:
    """Let the job begin with the dangers that the last one on its serial number left behind."""
    with teller.context.store.write() as session:
        job = take(teller.context, session, teller.job_id)
        frame = replace(job.case.present, order=job.stored.revision, former=tuple(map(FormerDanger, dangers)))
        with_frame(session, teller.job_id, job.case, frame)
    forget(teller.context, teller.job_id)
    teller.known = None
