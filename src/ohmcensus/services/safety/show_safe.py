"""Everything the Safe screen shows: steps, points of the proof, hazards, and whether power is allowed."""

from __future__ import annotations

from dataclasses import asdict
from typing import Literal

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.record_words import record_words
from ohmcensus.core.safety import safe_steps
from ohmcensus.core.safety.hands import is_prover, others_in
from ohmcensus.core.safety.power import asked_before_live, power_bars
from ohmcensus.core.safety.steps import cautions
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.choice import Choice
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take
from ohmcensus.services.job.points_view import hand_points, series_points
from ohmcensus.services.job.view import hazard_view, job_view
from ohmcensus.services.safety.view import (
    PanelView,
    RecordView,
    SafeView,
    StepView,
    VoltageView,
    may_view,
    missing_proofs,
)
from ohmcensus.services.safety.words import safe_sentence


def show_safe(context: Context, job_id: str, device: str = "") -> SafeView:
    """Return how safe a machine is, and what is left to do, as a device sees it.

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
        steps=[StepView(**asdict(step), is_optional=step.is_optional) for step in safe_steps(case, safety)],
        cuts=[Choice(id=way, words=way.words) for way in CutOff],
        points=series_points(case, safety),
        hand=hand_points(case, safety),
        meter=safety.source_before.meter.title if safety.source_before else "",
        sentence=safe_sentence(case, safety),
        hazards=[hazard_view(row) for row in safety.dangers],
        missing=missing_proofs(case, safety),
        refusals=[f"{bar.found}. Next, {bar.do}" for bar in power_bars(safety)],
        may=may_view(case, safety, device),
        asks=[Choice(id=says, words=says.words) for says in asked_before_live(safety)],
        cautions=list(cautions(case)),
        panels=[
            PanelView(id=name, words=panel.title, is_off=name in safety.walk.covers)
            for name, panel in case.sheet.panels.items()
        ],
        parts=[Choice(id=part.id, words=part.title) for part in case.sheet.parts],
        opens=_opens(case.sheet),
        others_in=bool(others_in(safety.walk, device)),
        is_prover=is_prover(safety.walk, device),
        voltages=[VoltageView(at=row.at, words=row.words) for row in reversed(safety.walk.shouts)],
        records=[
            RecordView(id=event.id, at=event.at, who=event.who, words=record_words(case, event.body))
            for event in reversed(case.events)
        ],
    )


def _opens(sheet: Sheet) -> Literal["door", "lid"] | None:
    """Return what an interlock of the machine keeps shut, None where it has none."""
    if not any(part.part_kind.interlock for part in sheet.parts):
        return None
    return "lid" if "lid" in sheet.states else "door"
