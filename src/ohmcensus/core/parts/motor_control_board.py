"""The motor control board: a rectifier, a link capacitor that keeps its charge, and an inverter of three phases."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import electronic
from ohmcensus.core.parts.comparison import Comparison, Relation
from ohmcensus.core.parts.element import Element, capacitor, junction, resistor
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    StoredCharge,
    TestSpec,
    Waves,
)
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

# What a rectifier and the gates show to an ohmmeter once the link has charged (our choice).
RECTIFIER_OHM = 3e6
VALVE_OHM = 6e6
_PHASES = ("u", "v", "w")

_RAILS = {"plus": "+", "minus": "−"}
_POLES = {"l": "line in", "n": "neutral in"}
_VALVE_ADVICE = "Link under 1 V, motor plug off; the other way round it reads OL. Blind to the gates."
_LINK_ADVICE = "Link under 1 V, supply plug off."
# In the circuit the rest of the board lies beside the bleed and lowers it (ours).
_BLEED_LOW, _BLEED_HIGH = 0.8, 1.1


class MotorControlBoardRatings(Ratings):
    """The link: its capacitance, its voltage at work, its bleed."""

    link_farad: float = Field(gt=0, le=1e-2)
    link_volts: float = Field(gt=0, le=500)
    bleed_ohm: float | None = Field(default=None, gt=0)


def _pins(ratings: MotorControlBoardRatings) -> tuple[Pin, ...]:
    """Return supply, link and phases."""
    phases = tuple(Pin(phase, f"phase {phase.upper()}") for phase in _PHASES)
    return (
        Pin("l", "line in"),
        Pin("n", "neutral in"),
        Pin("plus", "link +", may_be_free=True),
        Pin("minus", "link −", may_be_free=True),
        *phases,
    )


def _stored_charges(ratings: MotorControlBoardRatings) -> tuple[StoredCharge, ...]:
    """Return the link."""
    return (
        StoredCharge(
            "inverter link",
            ("plus", "minus"),
            ratings.link_farad,
            ratings.link_volts,
            ratings.bleed_ohm,
            is_link=True,
        ),
    )


def _elements(ratings: MotorControlBoardRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the link with its bleed, the rectifier and the six valves."""
    bleed = (resistor("bleed", "plus", "minus", ratings.bleed_ohm),) if ratings.bleed_ohm else ()
    valves = tuple(
        valve
        for phase in _PHASES
        for valve in (
            junction(f"{phase}_plus", phase, "plus", VALVE_OHM, is_gated=True),
            junction(f"{phase}_minus", "minus", phase, VALVE_OHM, is_gated=True),
        )
    )
    rectifier = tuple(
        diode
        for pole in ("l", "n")
        for diode in (
            junction(f"{pole}_plus", pole, "plus", RECTIFIER_OHM),
            junction(f"{pole}_minus", "minus", pole, RECTIFIER_OHM),
        )
    )
    return (
        capacitor("link", "plus", "minus", ratings.link_farad),
        *bleed,
        *rectifier,
        *valves,
    )


def _tests(ratings: MotorControlBoardRatings) -> tuple[TestSpec, ...]:
    """Return the six valves and the rectifier by the diode test, and the link with its bleed."""
    valves = (_diode(phase, f"phase {phase.upper()}", rail, _VALVE_ADVICE) for phase in _PHASES for rail in _RAILS)
    rectifier = (_diode(pole, _POLES[pole], rail, _LINK_ADVICE) for pole in _POLES for rail in _RAILS)
    return (*valves, *rectifier, *_link(ratings.bleed_ohm))


def _diode(point: str, name: str, rail: str, advice: str) -> TestSpec:
    """Build the test of one valve or diode, from its point to a rail of the link."""
    return TestSpec(
        name=f"{point}_{rail}",
        title=f"{name} to link {_RAILS[rail]}",
        between=(point, rail) if rail == "plus" else (rail, point),
        function=Function.DIODE,
        expect=common(0.3, 0.7, Unit.VOLT, "0.3–0.7 V one way, all alike"),
        blind_to=(FaultMode.DRIFT, FaultMode.BAD_JOINT),
        state=MachineState.PLUG_PULLED,
        minutes=0.5,
        advice=advice,
    )


def _link(bleed_ohm: float | None) -> tuple[TestSpec, ...]:
    """Return the link by ohms, where a resistor bleeds it."""
    if not bleed_ohm:
        return ()
    return (
        TestSpec(
            name="bleed",
            title="link + to −, bleed resistor",
            between=("plus", "minus"),
            function=Function.OHM,
            expect=common(_BLEED_LOW * bleed_ohm, _BLEED_HIGH * bleed_ohm, Unit.OHM, "its marking −20/+10 %"),
            blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT),
            state=MachineState.PLUG_PULLED,
            minutes=1.0,
            advice=f"{_LINK_ADVICE} Wait until it stops climbing: the capacitor charges first.",
        ),
    )


KIND = PartKind(
    kind="motor_control_board",
    title="Motor control board",
    traits=replace(electronic(Role.DRIVE), waves=Waves.INVERTED),
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.BAD_JOINT, FaultMode.DRIFT),
    priors={FaultMode.SHORT: 0.8, FaultMode.OPEN: 0.6, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_TURN: 0.35,
        Symptom.NO_SPIN: 0.25,
        Symptom.DEAD: 0.15,
        Symptom.TRIPS: 0.15,
        Symptom.CODE: 0.25,
        Symptom.SMELLS: 0.15,
    },
    checks=(PartCheck("burns", "Board, both sides", "burst valves, soot, bulged link capacitor"),),
    cautions=("Its link keeps hundreds of volts after the plug is out: wait, measure, discharge, measure again.",),
    repair="replace the board",
    repair_minutes=30.0,
    ratings=MotorControlBoardRatings,
    pins=_pins,
    # Six valves of one make show the same drop within a tenth (ours).
    comparisons=(
        Comparison(
            "alike", "six valves alike", tuple(f"{p}_{r}" for p in _PHASES for r in _RAILS), Relation.ALIKE, 0.1
        ),
    ),
    stored_charges=_stored_charges,
    elements=_elements,
    tests=_tests,
)
