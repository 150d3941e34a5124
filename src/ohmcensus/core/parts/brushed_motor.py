"""The brushed motor: field, armature through two brushes, tacho, thermal protector, earthed frame."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.comparison import Comparison, Relation
from ohmcensus.core.parts.element import Element, contact, load
from ohmcensus.core.parts.expect import Expect, closed_contact, common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    Brings,
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
    Waves,
)
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

# Inductances of a universal motor of a washer and of its tacho (our choice).
ARMATURE_H = 0.010
FIELD_H = 0.015
TACHO_H = 0.020
# No brush is longer than a new one by more than this (ours): a slip of the unit shows.
LONGER_THAN_NEW = 1.25


class BrushedMotorRatings(Ratings):
    """Length at which the brushes are worn, and new."""

    brush_worn_m: float = Field(default=0.011, gt=0, le=0.1)
    brush_new_m: float = Field(default=0.036, gt=0, le=0.1)


def _elements(ratings: BrushedMotorRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return field, armature through its brushes, tacho and protector; the windings leak to the frame."""
    return (
        load("armature", "brush_a", "brush_b", nominal("armature"), henry=ARMATURE_H, chassis="pe"),
        load("field", "field_a", "field_b", nominal("field"), henry=FIELD_H, chassis="pe"),
        load("tacho", "tacho_a", "tacho_b", nominal("tacho"), henry=TACHO_H, chassis="pe"),
        contact("protector", "protector_a", "protector_b", None, ohm=0.05),
    )


def _tests(ratings: BrushedMotorRatings) -> tuple[TestSpec, ...]:
    """Return the windings, the tacho at rest and turned, the brushes and the insulation."""
    return (
        _winding("field", "field", common(0.8, 4.0, Unit.OHM, "0.8–4 Ω"), ("stator",), ""),
        _winding(
            "armature",
            "brush to brush",
            common(1.0, 5.0, Unit.OHM, "1–5 Ω, steady while turned"),
            ("brush to brush", "rotor"),
            "Turn the rotor slowly by hand: jumps from bar to bar are a burnt commutator.",
            ("brush_a", "brush_b"),
        ),
        _winding("tacho", "tacho coil", common(30.0, 700.0, Unit.OHM, "30–700 Ω by type"), (), ""),
        _winding("protector", "thermal protector", closed_contact(), ("thermal",), ""),
        TestSpec(
            name="tacho_volts",
            title="tacho, drum turned by hand",
            between=("tacho_a", "tacho_b"),
            function=Function.VOLTS_AC,
            expect=common(0.2, 5.0, Unit.VOLT, "0.2–5 V, rising with speed"),
            blind_to=(FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.BAD_JOINT),
            aliases=("pulses",),
            state=MachineState.PLUG_PULLED,
            advice="Machine unplugged; turn the drum by hand and watch it rise.",
        ),
        _brush("brush_1", "brush 1, length", ratings, "brush_a"),
        _brush("brush_2", "brush 2, length", ratings, "brush_b"),
        to_earth(
            ("field_a", "pe"),
            (FaultMode.OPEN, FaultMode.SHORTED_TURNS, FaultMode.DRIFT, FaultMode.BAD_JOINT),
            "Pull the tacho's wires from the board before 500 V. Discharge after.",
            aliases=("frame", "insulation"),
            joined=("field_a", "brush_a"),
        ),
    )


def _winding(
    name: str, title: str, expect: Expect, aliases: tuple[str, ...], advice: str, between: tuple[str, str] | None = None
) -> TestSpec:
    """Build the test of one winding or of the protector."""
    return TestSpec(
        name=name,
        title=title,
        between=between or (f"{name}_a", f"{name}_b"),
        function=Function.OHM,
        expect=expect,
        blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT, FaultMode.SHORTED_TURNS),
        aliases=aliases,
        state=MachineState.PLUG_PULLED,
        minutes=0.7,
        advice=advice,
        copper=name != "protector",
    )


def _brush(name: str, title: str, ratings: BrushedMotorRatings, pin: str) -> TestSpec:
    """Build the measurement of one brush."""
    basis = f"common range: worn at {ratings.brush_worn_m * 1000:g} mm, new {ratings.brush_new_m * 1000:g} mm"
    span = Interval(ratings.brush_worn_m, LONGER_THAN_NEW * ratings.brush_new_m)
    window = Window(span, Unit.METRE, Source.PLATE, basis, nominal=ratings.brush_new_m)
    return TestSpec(
        name=name,
        title=title,
        between=(pin, pin),
        function=Function.LENGTH,
        expect=lambda _celsius: window,
        blind_to=(FaultMode.OPEN, FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.BAD_JOINT),
        aliases=(title.split(",", maxsplit=1)[0], name.replace("_", "")),
        minutes=4.0,
        advice="Look for chips, a slanted face and carbon dust.",
    )


KIND = PartKind(
    kind="brushed_motor",
    title="Motor",
    traits=replace(plain(Role.LOAD), waves=Waves.CHOPPED),
    # Two brushes wear alike; a fifth off their mean and one hangs in its holder (ours).
    comparisons=(Comparison("brushes", "brushes alike", ("brush_1", "brush_2"), Relation.ALIKE, 0.2),),
    brings=(Brings(FaultMode.SHORTED_TURNS, "control_board", FaultMode.WELDED),),
    fault_modes=(FaultMode.OPEN, FaultMode.SHORTED_TURNS, FaultMode.LEAK, FaultMode.DRIFT, FaultMode.BAD_JOINT),
    priors={
        FaultMode.OPEN: 1.4,
        FaultMode.SHORTED_TURNS: 0.5,
        FaultMode.LEAK: 0.6,
        FaultMode.BAD_JOINT: 0.4,
    },
    checks=(PartCheck("commutator", "Commutator", "burnt bars, grease, carbon dust", mechanical=0.3),),
    repair="new brushes, or another motor",
    repair_minutes=35.0,
    explains={
        Symptom.HUMS: 0.4,
        Symptom.NO_TURN: 0.5,
        Symptom.NO_SPIN: 0.35,
        Symptom.NOISY: 0.25,
        Symptom.TRIPS: 0.15,
        Symptom.SMELLS: 0.25,
        Symptom.CODE: 0.1,
    },
    tools=("brushes of the type",),
    tricks=(
        "Slip the belt off the drum's wheel first, turning it; put it back on the motor first.",
        "Note which way each brush slants: it goes back the same way, in the same holder.",
    ),
    cautions=("Grease from fingers spoils a commutator.",),
    ratings=BrushedMotorRatings,
    pins=fixed(
        Pin("field_a", "field 1"),
        Pin("field_b", "field 2"),
        Pin("brush_a", "brush 1"),
        Pin("brush_b", "brush 2"),
        Pin("tacho_a", "tacho 1"),
        Pin("tacho_b", "tacho 2"),
        Pin("protector_a", "protector 1"),
        Pin("protector_b", "protector 2"),
        Pin("pe", "frame"),
    ),
    elements=_elements,
    tests=_tests,
)
