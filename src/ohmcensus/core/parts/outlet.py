"""The outlet that the machine is plugged into: the first suspect of a dead machine."""

from __future__ import annotations

from dataclasses import replace

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.expect import Expect
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

NEUTRAL_TO_EARTH_LIMIT_V = 5.0
# What a motor takes goes with its load; what a board itself takes is not counted (ours).
DRAW_FACTOR, DRAW_SLACK_A = 2.1, 0.03
# The programme has to come to the step first (ours).
DRAW_MINUTES = 2.0


class StepDraw(Ratings):
    """Current in amperes while the machine stands in some states: ``{programme: heat, door: locked}``."""

    ampere: float = Field(ge=0, le=100)
    sets: dict[str, str]


class OutletRatings(Ratings):
    """Nominal supply, and what the machine draws from it in steps of its programme."""

    volts: float = Field(gt=0, le=500)
    draws: dict[str, StepDraw] = Field(default_factory=dict, max_length=12)


def _tests(ratings: OutletRatings) -> tuple[TestSpec, ...]:
    """Return the three voltages."""

    def supply(_celsius: float) -> Window:
        span = Interval(1 - SUPPLY_TOLERANCE, 1 + SUPPLY_TOLERANCE).scaled(ratings.volts)
        basis = f"the supply: {ratings.volts:g} V ±10 % (IEC 60038)"
        return Window(span, Unit.VOLT, Source.PLATE, basis, nominal=ratings.volts)

    def neutral(_celsius: float) -> Window:
        basis = "common range: an earthed neutral is within a few volts of earth"
        return Window(Interval(0.0, NEUTRAL_TO_EARTH_LIMIT_V), Unit.VOLT, Source.COMMON, basis)

    return (
        _live("ln", "line to neutral", ("l", "n"), supply, ("volts",)),
        _live("le", "line to earth", ("l", "pe"), supply, ()),
        replace(
            _live("ne", "neutral to earth", ("n", "pe"), neutral, ()),
            at_zero="0.00 under load may be a bond of neutral and earth",
        ),
        *_RCD,
        *(_draw(step, draw) for step, draw in ratings.draws.items()),
    )


def _rcd(name: str, title: str, function: Function, alias: str) -> TestSpec:
    """Build one test of the residual-current device before the outlet; its window is that of the device."""
    basis = "common range: the device on this circuit"
    window = Window(Interval(0.0), function.unit, Source.COMMON, basis)
    return TestSpec(
        name=name,
        title=title,
        between=("l", "pe"),
        function=function,
        expect=lambda _celsius: window,
        blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT),
        aliases=(alias,),
        state=MachineState.LIVE,
        advice="Machine unplugged; it takes the circuit out: ask first. Its test button proves the mechanism only.",
    )


RCD_CURRENT, RCD_TIME = "rcd_ramp", "rcd_time"
_RCD = (
    _rcd(RCD_CURRENT, "trip current, ramped", Function.RCD_CURRENT, "ramp"),
    _rcd(RCD_TIME, "time to trip", Function.RCD_TIME, "trip time"),
)


def _draw(step: str, draw: StepDraw) -> TestSpec:
    """Build the current of one step: one clamp or plug meter, every panel shut."""
    span = Interval(max(0.0, draw.ampere / DRAW_FACTOR - DRAW_SLACK_A), draw.ampere * DRAW_FACTOR + DRAW_SLACK_A)
    basis = "the loads that run in this step, half to twice: what turns takes what it needs"
    window = Window(span, Unit.AMPERE, Source.PLATE, basis, nominal=draw.ampere)
    return TestSpec(
        name=f"amps_{step}",
        title=f"current in the step {step}",
        between=("l", "l"),
        function=Function.AMPERE,
        expect=lambda _celsius: window,
        aliases=(f"amps {step}",),
        state=MachineState.LIVE,
        minutes=DRAW_MINUTES,
        advice="Clamp around line alone, or a plug meter; panels shut. It does not draw: look along its path.",
        sets=draw.sets,
    )


def _live(name: str, title: str, between: tuple[str, str], expect: Expect, aliases: tuple[str, ...]) -> TestSpec:
    """Build one voltage test."""
    return TestSpec(
        name=name,
        title=title,
        between=between,
        function=Function.VOLTS_AC,
        expect=expect,
        blind_to=(FaultMode.BAD_JOINT,),
        aliases=aliases,
        state=MachineState.LIVE,
        advice="Without load a bad joint still shows full volts.",
    )


KIND = PartKind(
    kind="outlet",
    title="Outlet",
    traits=plain(Role.OUTLET),
    seen_outside=("protective_devices",),
    fault_modes=(FaultMode.OPEN, FaultMode.BAD_JOINT),
    explains={
        Symptom.DEAD: 0.35,
        Symptom.STOPS: 0.08,
        Symptom.SHOCK: 0.1,
    },
    is_spare=False,
    tools=("outlet tester or two-pole voltage tester",),
    ratings=OutletRatings,
    pins=fixed(Pin("l", "line"), Pin("n", "neutral"), Pin("pe", "earth")),
    tests=_tests,
)
