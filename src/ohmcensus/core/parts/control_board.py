"""The control board with the relay that switches the heater, or another load."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import closed, opened, plain
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, fuse, resistor
from ohmcensus.core.parts.expect import common, mains_volts
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

# What a sensor input and the rectified supply of the board show to an ohmmeter (our choice).
# From a motor with its field and armature in a row to a valve and its lead (common practice, no source).
LOAD_SEEN_OHM = (1.0, 2e4)
SENSE_OHM = 47e3
SUPPLY_OHM = 2.2e6
# The state of a sheet whose heater hangs on the relay of its board.
HEATER_RELAY, CLOSED = "heater_relay", "closed"


class Output(Ratings):
    """A switched output: the pin that it switches from, and the programme steps in which it is on."""

    source: Literal["l", "n", "sw"] = "l"
    steps: tuple[str, ...] = Field(min_length=1, strict=False)


class Relay(Ratings):
    """What the relay of a board switches, and when: in some programme steps, or as the state `heater_relay` says."""

    load: str = Field(default="heater", pattern="^[a-z]{2,24}$")
    steps: tuple[str, ...] = Field(default=(), strict=False)


class ControlBoardRatings(Ratings):
    """What the board switches and senses.

    Attributes
    ----------
    relay
        The load of the relay, by default a heater.
    outputs
        Triacs and relays by the load that they switch.
    senses
        Sensors whose two leads end on the board.
    volts
        Supply; where it is stated, every output has a live test.
    arrester
        Whether a surge arrester goes to earth on it.
    """

    relay: Relay = Field(default_factory=Relay)
    outputs: dict[str, Output] = Field(default_factory=dict)
    senses: tuple[str, ...] = Field(default=(), strict=False)
    volts: float | None = Field(default=None, gt=0, le=500)
    arrester: bool = False


def _pins(ratings: ControlBoardRatings) -> tuple[Pin, ...]:
    """Return the tags of supply, relay and fuse."""
    outputs = tuple(Pin(f"out_{name}", f"{name} output") for name in ratings.outputs)
    load = ratings.relay.load
    senses = tuple(
        Pin(f"{name}_{end}", f"{name} input {end}", may_be_free=True) for name in ratings.senses for end in ("a", "b")
    )
    return (
        Pin("l", "line in"),
        Pin("n", "neutral in"),
        Pin("sw", "switched line in", may_be_free=True),
        *outputs,
        *senses,
        Pin("relay_in", f"{load} relay, line side", may_be_free=True),
        Pin("relay_out", f"{load} relay, {load} side", may_be_free=True),
        Pin("coil_a", f"{load} relay coil 1", may_be_free=True),
        Pin("coil_b", f"{load} relay coil 2", may_be_free=True),
        Pin("fuse_out", "behind the board fuse", may_be_free=True),
    )


def _elements(ratings: ControlBoardRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the relay, every switched output, the sensor inputs, the fuse and the supply."""
    steps = frozenset(ratings.relay.steps)
    when = ClosedWhen("programme", steps) if steps else ClosedWhen(HEATER_RELAY, frozenset({CLOSED}))
    relay = contact("relay", "relay_in", "relay_out", when)
    outputs = tuple(
        contact(f"out_{name}", output.source, f"out_{name}", ClosedWhen("programme", frozenset(output.steps)))
        for name, output in ratings.outputs.items()
    )
    senses = tuple(resistor(f"{name}_input", f"{name}_a", f"{name}_b", SENSE_OHM) for name in ratings.senses)
    return (
        relay,
        *outputs,
        *senses,
        resistor("coil", "coil_a", "coil_b", nominal("coil")),
        fuse("fuse", "l", "fuse_out", ohm=0.1),
        resistor("supply", "fuse_out", "n", SUPPLY_OHM, is_linear=False),
    )


def _tests(ratings: ControlBoardRatings) -> tuple[TestSpec, ...]:
    """Return the relay at rest, its coil and the fuse."""
    return (
        opened(
            "relay",
            f"{ratings.relay.load} relay, at rest",
            ("relay_in", "relay_out"),
            "an idle relay is open; under 1 Ω is welded",
            blind_to=(FaultMode.STUCK_OPEN, FaultMode.OPEN, FaultMode.BAD_JOINT),
            aliases=(f"{ratings.relay.load} relay", "contact"),
        ),
        TestSpec(
            name="coil",
            title=f"{ratings.relay.load} relay coil",
            between=("coil_a", "coil_b"),
            function=Function.OHM,
            expect=common(200.0, 400.0, Unit.OHM, "200–400 Ω for a 12 V relay"),
            blind_to=(FaultMode.WELDED, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
            aliases=("relay coil",),
            state=MachineState.PLUG_PULLED,
            minutes=2.0,
        ),
        closed(
            "fuse",
            "board fuse",
            ("l", "fuse_out"),
            blind_to=(FaultMode.WELDED, FaultMode.STUCK_OPEN),
            state=MachineState.UNPLUGGED,
        ),
        *_relay_called(ratings),
        *(test for name, output in ratings.outputs.items() for test in _output_tests(name, output, ratings.volts)),
    )


def _relay_called(ratings: ControlBoardRatings) -> tuple[TestSpec, ...]:
    """Return the load of the relay as the board sees it, and the live test of its relay."""
    if ratings.volts is None:
        return ()
    load, steps = ratings.relay.load, ratings.relay.steps
    called = "heat" if load == "heater" else load
    sets = {"programme": steps[0]} if steps else {"programme": "heat", HEATER_RELAY: CLOSED}
    return (
        _load_seen(load, "relay_out", "n"),
        TestSpec(
            name="relay_on",
            title=f"{called} called, volts",
            between=("relay_out", "n"),
            function=Function.VOLTS_AC,
            expect=mains_volts(ratings.volts),
            aliases=(f"{called} on",),
            state=MachineState.LIVE,
            minutes=2.0,
            sets={"door": "locked", "lid": "locked", **sets},
        ),
    )


def _output_tests(name: str, output: Output, volts: float | None) -> tuple[TestSpec, ...]:
    """Return one output at rest, and live in a step that calls it."""
    switch = (output.source, f"out_{name}")
    rest = opened(
        f"{name}_rest", f"{name} output, at rest", switch, "an idle switch is open; shorted, its load runs at once"
    )
    load = _load_seen(name, f"out_{name}", "l" if output.source == "n" else "n")
    if volts is None:
        return (rest, load)
    live = TestSpec(
        name=f"{name}_on",
        title=f"{name} output, called",
        between=("l", f"out_{name}") if output.source == "n" else (f"out_{name}", "n"),
        function=Function.VOLTS_AC,
        expect=mains_volts(volts),
        state=MachineState.LIVE,
        minutes=2.0,
        sets={"door": "locked", "lid": "locked", "programme": output.steps[0]},
    )
    return (rest, load, live)


_LOAD = Window(
    Interval(*LOAD_SEEN_OHM),
    Unit.OHM,
    Source.COMMON,
    "common range: a load, neither open nor shorted",
    words="1 Ω–20 kΩ",
)


def _a_load(_celsius: float) -> Window:
    """Return what any load reads."""
    return _LOAD


def _load_seen(name: str, output: str, pole: str) -> TestSpec:
    """Return a load with its lead and whatever lies in between, measured from the board: one reading for the path."""
    return TestSpec(
        name=f"{name}_load",
        title=f"{name} load with its lead",
        between=(output, pole),
        function=Function.OHM,
        expect=_a_load,
        aliases=(f"{name} load",),
        minutes=1.5,
        load_of="relay" if output == "relay_out" else output,
        advice="Plugs on, machine unplugged: it asks load and lead at once, and not the board.",
    )


KIND = PartKind(
    kind="control_board",
    title="Control board",
    traits=replace(plain(Role.BOARD), governs_heat=True),
    fault_modes=(FaultMode.OPEN, FaultMode.WELDED, FaultMode.STUCK_OPEN, FaultMode.BAD_JOINT),
    priors={
        FaultMode.WELDED: 0.7,
        FaultMode.STUCK_OPEN: 0.8,
        FaultMode.OPEN: 0.7,
        FaultMode.BAD_JOINT: 0.5,
    },
    checks=(PartCheck("burns", "Board, both sides", "brown joints, burst capacitors, soot"),),
    repair="mend the joint or replace the board",
    tricks=(
        "One plug at a time, each with its photo: two of the same shape may swap.",
        "Touch bare metal of the frame before the board.",
    ),
    repair_minutes=35.0,
    explains={
        Symptom.DEAD: 0.3,
        Symptom.NO_START: 0.25,
        Symptom.STOPS: 0.25,
        Symptom.NO_HEAT: 0.2,
        Symptom.OVERHEATS: 0.35,
        Symptom.NO_TURN: 0.15,
        Symptom.NO_SPIN: 0.15,
        Symptom.NO_DRAIN: 0.1,
        Symptom.CODE: 0.2,
        Symptom.SMELLS: 0.25,
        Symptom.NO_LOCK: 0.15,
        Symptom.NO_WATER: 0.1,
        Symptom.OVERFILLS: 0.15,
        Symptom.NO_OPEN: 0.1,
    },
    ratings=ControlBoardRatings,
    pins=_pins,
    elements=_elements,
    tests=_tests,
)
