"""Everything the Safe screen shows: steps, points of the proof, hazards, and whether power is allowed."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import Body
from ohmcensus.core.machine import dead_tests
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety import Safety, SafetyState, open_hazards, safe_steps, safety_at
from ohmcensus.core.safety.hazards import missing_proofs
from ohmcensus.core.safety.state import SOURCE, is_inside
from ohmcensus.core.safety.steps import StepKind, cautions
from ohmcensus.services.at_hand import take
from ohmcensus.services.context import Context
from ohmcensus.services.show_intake import Choice
from ohmcensus.services.show_job import HazardView, JobView, job_view


class StepView(BaseModel):
    """A step of making safe."""

    id: str
    kind: StepKind
    title: str
    how: str
    is_done: bool


class PointView(BaseModel):
    """A reading of the proof: what to type, between what, and what stands.

    ``is_good`` is None while it was not read; ``is_next`` marks the one that is due.
    """

    id: str
    typed: str
    title: str
    between: list[str]
    limit: str
    reads: str
    is_good: bool | None
    is_next: bool


class ProofView(BaseModel):
    """A test that must pass before power, and what to type for it."""

    key: str
    typed: str
    title: str
    should: str


class RecordView(BaseModel):
    """One event, for the list of what was done."""

    id: str
    at: str
    who: str
    body: Body


class SafeView(BaseModel):
    """Making a machine safe."""

    job: JobView
    steps: list[StepView]
    points: list[PointView]
    meter: str
    sentence: str
    hazards: list[HazardView]
    missing: list[ProofView]
    cautions: list[str]
    panels: list[Choice]
    records: list[RecordView]


def show_safe(context: Context, job_id: str) -> SafeView:
    """Return how safe a machine is, and what is left to do.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    with context.store.read() as session:
        job = take(context, session, job_id)
    case, now = job.case, context.clock()
    safety = safety_at(case, now)
    hazards = open_hazards(case)
    since = max((hazard.since for hazard in hazards if hazard.forbids_power), default=0)
    missing = missing_proofs(case, since) if any(hazard.forbids_power for hazard in hazards) else ()
    return SafeView(
        job=job_view(job, now),
        steps=[
            StepView(id=step.id, kind=step.kind, title=step.title, how=step.how, is_done=step.is_done)
            for step in safe_steps(case, safety)
        ],
        points=_points(case, safety),
        meter=safety.source_before.meter.title if safety.source_before else "",
        sentence=_sentence(case, safety),
        hazards=[
            HazardView(hazard=row.hazard, words=row.words, forbids_power=row.forbids_power, remedy=row.remedy)
            for row in hazards
        ],
        missing=[
            ProofView(
                key=test.id,
                typed=f"{test.part} {test.name} ",
                title=f"{test.part_title}, {test.title}",
                should=test.window.shown,
            )
            for test in missing
        ],
        cautions=list(cautions(case)),
        panels=[Choice(id=name, words=panel.title) for name, panel in case.sheet.panels.items()],
        records=[
            RecordView(id=event.id, at=event.at, who=event.who, body=event.body) for event in reversed(case.events)
        ],
    )


def _points(case: Case, safety: Safety) -> list[PointView]:
    """Return the series: known source, every point, known source again; the first one missing is next."""
    tests = {test.id: test for test in dead_tests(case.sheet)}
    last = safety.at if safety.state is SafetyState.DEAD else ""
    after = next((row for row in reversed(case.standing) if row.test == SOURCE and row.at == last), None)
    rows: list[tuple[str, Reading | None, str]] = [(SOURCE, safety.source_before, "Known source, before")]
    rows += [(name, safety.points.get(name), test.title) for name, test in tests.items() if name != SOURCE]
    rows.append((SOURCE, after, "Known source again"))
    is_due, found = safety.isolated, []
    for name, reading, title in rows:
        is_good = None if reading is None else is_inside(reading, case)
        found.append(
            PointView(
                id=name,
                typed=f"{tests[name].part} {tests[name].name} ",
                title=title,
                between=[] if name == SOURCE else [case.sheet.points.get(p, p) for p in tests[name].between],
                limit=tests[name].window.shown,
                reads=show_indication(reading.indication) if reading else "",
                is_good=is_good,
                is_next=is_due and is_good is not True,
            )
        )
        is_due = is_due and is_good is True
    return found


def _sentence(case: Case, safety: Safety) -> str:
    """Say how things stand, and what is next."""
    titles = {test.id: test.title for test in dead_tests(case.sheet)}
    voltage = ", ".join(titles[name] for name in safety.bad)
    connected = f"the earth always, {safety.stays_connected}" if safety.stays_connected else "the earth always"
    stands = (
        (safety.state is SafetyState.DEAD, "Proved dead at the terminals. Ten minutes unattended clear it."),
        (safety.state is SafetyState.LIVE, f"LIVE: {safety.reason}. Stays connected: {connected}."),
        (bool(safety.bad), f"Not dead: voltage at {voltage}. Stop, find why, discharge."),
        (bool(safety.lapsed), f"No longer proved dead: {safety.lapsed}."),
        (not safety.isolated, "Cut it off first; the readings count from then on."),
        (safety.source_before is None, "Show the meter a known source: the outlet, or a proving unit."),
    )
    return next((words for holds, words in stands if holds), "All with this one meter, then the known source again.")
