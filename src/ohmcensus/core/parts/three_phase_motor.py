"""A three-phase motor on an inverter, its windings in a star on a frame."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.build import MOTOR_MODES, fixed, plain, winding
from ohmcensus.core.parts.comparison import Comparison, Relation
from ohmcensus.core.parts.element import Element, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Brings, Nominal, NoRatings, PartKind, Pin, Role, Waves
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.symptom import Symptom

_PHASES = ("u", "v", "w")
_PAIRS = (("u", "v"), ("v", "w"), ("w", "u"))


def _elements(_ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    return tuple(load(phase, phase, "star", nominal("uv") / 2, henry=0.01, chassis="pe") for phase in _PHASES)


KIND = PartKind(
    kind="three_phase_motor",
    title="Three-phase motor",
    traits=replace(plain(Role.LOAD), waves=Waves.INVERTED),
    brings=(Brings(FaultMode.SHORT, "motor_control_board", FaultMode.SHORT),),
    comparisons=(Comparison("alike", "windings alike", tuple(f"{a}{b}" for a, b in _PAIRS), Relation.ALIKE, 0.05),),
    ratings=NoRatings,
    fault_modes=MOTOR_MODES,
    priors={FaultMode.OPEN: 0.4, FaultMode.SHORTED_TURNS: 0.4, FaultMode.LEAK: 0.5, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_TURN: 0.35,
        Symptom.HUMS: 0.3,
        Symptom.NO_SPIN: 0.25,
        Symptom.TRIPS: 0.15,
        Symptom.NOISY: 0.2,
        Symptom.CODE: 0.15,
    },
    repair="replace the motor",
    repair_minutes=40.0,
    tricks=("Slip the belt off the drum's wheel first, turning it; take the motor's weight before the last bolt.",),
    pins=fixed(*(Pin(phase, f"phase {phase.upper()}") for phase in _PHASES), Pin("pe", "frame")),
    elements=_elements,
    tests=fixed(
        *(
            winding(
                f"{a}{b}",
                f"winding {a.upper()} to {b.upper()}",
                (a, b),
                2.0,
                20.0,
                "2–20 Ω, all three alike within ±5 %",
                minutes=0.7,
            )
            for a, b in _PAIRS
        ),
        to_earth(
            ("u", "pe"),
            (),
            "Its plug off the inverter: never 500 V into a connected one. Discharge after.",
            aliases=("frame", "insulation"),
        ),
    ),
)
