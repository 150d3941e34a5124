"""A motor with a run and a start winding, its windings on a frame."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.build import MOTOR_MODES, fixed, plain, winding
from ohmcensus.core.parts.comparison import Comparison, Relation
from ohmcensus.core.parts.element import Element, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Brings, Nominal, NoRatings, PartKind, Pin, Role
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.symptom import Symptom


def _elements(_ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    return (
        load("run", "c", "run", nominal("run"), henry=0.03, chassis="pe"),
        load("start", "c", "start", nominal("start"), henry=0.04, chassis="pe"),
    )


KIND = PartKind(
    kind="single_phase_motor",
    title="Motor with run and start winding",
    traits=replace(plain(Role.LOAD), starts_direct=True),
    brings=(Brings(FaultMode.SHORTED_TURNS, "motor_capacitor", FaultMode.DRIFT),),
    comparisons=(
        Comparison("order", "run under start", ("run", "start"), Relation.ASCENDING),
        Comparison("sum", "run and start in a row", ("run", "start"), Relation.SUM, 0.05, whole=("run", "start")),
    ),
    ratings=NoRatings,
    fault_modes=MOTOR_MODES,
    priors={FaultMode.OPEN: 0.6, FaultMode.SHORTED_TURNS: 0.5, FaultMode.LEAK: 0.4, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_TURN: 0.4,
        Symptom.HUMS: 0.45,
        Symptom.NO_SPIN: 0.3,
        Symptom.TRIPS: 0.15,
        Symptom.SMELLS: 0.2,
        Symptom.NOISY: 0.15,
    },
    repair="replace the motor",
    repair_minutes=40.0,
    tricks=("Take its weight before the last bolt: it drops on the belt side.",),
    pins=fixed(Pin("c", "common"), Pin("run", "run"), Pin("start", "start"), Pin("pe", "frame")),
    elements=_elements,
    tests=fixed(
        winding("run", "run winding", ("c", "run"), 1.0, 5.0, "1–5 Ω", aliases=("main",)),
        winding("start", "start winding", ("c", "start"), 2.0, 10.0, "2–10 Ω, more than the run winding"),
        to_earth(("c", "pe"), (), "Discharge after 500 V.", aliases=("frame", "insulation")),
    ),
)
