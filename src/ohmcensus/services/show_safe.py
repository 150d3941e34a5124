"""Everything the Safe screen shows: steps, points of the proof, hazards, and whether power is allowed."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import Body
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.machine import dead_tests
from ohmcensus.core.machine.dead_tests import SOURCE, SOURCE_DC
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety import Safety, SafetyState, may, safe_steps
from ohmcensus.core.safety.lifting import own_needs
from ohmcensus.core.safety.rules import asked_before_live, power_refusals
from ohmcensus.core.safety.series import is_dangerous, is_inside, wanted_points
from ohmcensus.core.safety.steps import StepKind, cautions
from ohmcensus.services.at_hand import take
from ohmcensus.services.context import Context
from ohmcensus.services.show_intake import Choice
from ohmcensus.services.show_job import HazardView, JobView, hazard_view, job_view


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


class MayView(BaseModel):
    """What would be accepted now."""

    power: bool
    live: bool
    run: bool


class SafeView(BaseModel):
    """Making a machine safe.

    ``refusals`` say what forbids power; ``asks`` what has to be stated before live work.
    """

    job: JobView
    steps: list[StepView]
    points: list[PointView]
    meter: str
    sentence: str
    hazards: list[HazardView]
    missing: list[ProofView]
    refusals: list[str]
    may: MayView
    asks: list[Choice]
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
    safety = job.safety(now)
    return SafeView(
        job=job_view(job, now),
        steps=[
            StepView(id=step.id, kind=step.kind, title=step.title, how=step.how, is_done=step.is_done)
            for step in safe_steps(case, safety)
        ],
        points=_points(case, safety),
        meter=safety.source_before.meter.title if safety.source_before else "",
        sentence=_sentence(case, safety),
        hazards=[hazard_view(row) for row in safety.dangers],
        missing=_missing(case, safety),
        refusals=[f"{what} ({remedy})" for what, remedy in power_refusals(safety)],
        may=_may(case, safety),
        asks=[Choice(id=says, words=says.words) for says in asked_before_live(safety)],
        cautions=list(cautions(case)),
        panels=[Choice(id=name, words=panel.title) for name, panel in case.sheet.panels.items()],
        records=[
            RecordView(id=event.id, at=event.at, who=event.who, body=event.body) for event in reversed(case.events)
        ],
    )


def _may(case: Case, safety: Safety) -> MayView:
    allowed = may(case, safety, sign_off=False)
    return MayView(power=allowed.power, live=allowed.live, run=allowed.run)


def _missing(case: Case, safety: Safety) -> list[ProofView]:
    """Return the readings that are still missing before power, each once."""
    needs = [need for row in safety.dangers if row.forbids_power for need in row.needs if need.typed]
    needs += [need for part in safety.walk.marks.changed for need in own_needs(part, safety.walk) if need.typed]
    found = []
    for need in dict.fromkeys(needs):
        test = named_test(need.typed.strip().replace(" ", "."), case.terms)
        title = f"{test.part_title}, {test.title}" if test else need.words
        found.append(
            ProofView(key=need.typed.strip(), typed=need.typed, title=title, should=test.window.shown if test else "")
        )
    return found


def _points(case: Case, safety: Safety) -> list[PointView]:
    """Return the series: known source, every point, known source again; the first one missing is next."""
    tests = {test.id: test for test in dead_tests(case.sheet)}
    series = safety.walk.series
    wanted = wanted_points(case.sheet, is_short=series.is_short)
    after = safety.walk.proved if safety.state is SafetyState.DEAD else None
    rows: list[tuple[str, Reading | None, str]] = [(SOURCE, safety.source_before, "Known source, before")]
    rows += [(name, safety.points.get(name), tests[name].title) for name in wanted]
    if any(is_dangerous(name, case.sheet) and name not in series.fell for name in wanted):
        direct = next((row for row in reversed(case.standing) if row.test == SOURCE_DC), None)
        is_shown = direct is not None and bool(series.direct)
        rows.append((SOURCE_DC, direct if is_shown else None, "Known DC source, a 9 V block"))
    rows.append((SOURCE, after, "Known source again"))
    is_due, found = safety.isolated, []
    for name, reading, title in rows:
        is_good = None if reading is None else is_inside(reading, case.sheet)
        found.append(
            PointView(
                id=name,
                typed=f"{tests[name].part} {tests[name].name} ",
                title=title,
                between=[] if name.startswith("source") else [case.sheet.points.get(p, p) for p in tests[name].between],
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
        (bool(safety.shout), f"VOLTAGE, hands off: {safety.shout}."),
        (safety.state is SafetyState.UNDER_VOLTAGE, f"Under voltage: {safety.reason}. Unplug it, then note it here."),
        (bool(safety.bad), f"Not dead: voltage at {voltage}. Stop, find why, discharge."),
        (bool(safety.lapsed), f"No longer proved dead: {safety.lapsed}."),
        (not safety.isolated, "Cut it off first; the readings count from then on."),
        (safety.source_before is None, "Show the meter a known source: the outlet, or a proving unit."),
    )
    return next((words for holds, words in stands if holds), "All with this one meter, then the known source again.")
