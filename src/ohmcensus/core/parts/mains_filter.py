"""The mains filter: chokes in both poles, an X-capacitor with its bleed resistor, two Y-capacitors to the chassis."""

from __future__ import annotations

import math

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import closed, fixed, plain
from ohmcensus.core.parts.element import Element, capacitor, resistor, wire
from ohmcensus.core.parts.expect import Expect, closed_contact, open_contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartKind,
    Pin,
    Ratings,
    Role,
    StoredCharge,
    TestSpec,
)
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.physics.capacitor import capacitive_current_a
from ohmcensus.core.quantity import Interval, Unit, show_value
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

BLEED_TOLERANCE = 0.10
CAPACITOR_TOLERANCE = 0.20
CHOKE_OHM = 0.3
# Healthy whole machines pass 0.1–0.7 mA at 230 V 50 Hz; less than half of what the filter alone passes is no
# machine on an earth (DOMAIN: common practice, no source).
HEALTHY_A, HEALTHY_VHZ = 0.7e-3, 230.0 * 50.0
LEAST_SHARE = 0.5
NO_PATH = "no path: earth open or switched off"
# Cord, plug fuse and choke in a row (common practice: under 1 Ω each).
PATH_LIMIT_OHM = 2.0


class MainsFilterRatings(Ratings):
    """Values printed on the filter; no bleed where discharge is electronic; whether a surge arrester goes to earth."""

    volts: float = Field(gt=0, le=500)
    hertz: float = Field(gt=0, le=400)
    x_farad: float = Field(gt=0, le=1e-5)
    y_farad: float = Field(gt=0, le=1e-7)
    bleed_ohm: float | None = Field(default=None, gt=0)
    arrester: bool = False


def _stored_charges(ratings: MainsFilterRatings) -> tuple[StoredCharge, ...]:
    """Return the X-capacitor, which stands at the crest of the mains when the plug is pulled."""
    crest = ratings.volts * math.sqrt(2)
    return (StoredCharge("X-capacitor", ("l_in", "n_in"), ratings.x_farad, crest, ratings.bleed_ohm),)


def _elements(ratings: MainsFilterRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return both chokes, the bleed, the X-capacitor and a Y-capacitor from each pole to the earth tag."""
    chokes = (
        wire("l", "l_in", "l_out", CHOKE_OHM, chassis="pe"),
        wire("n", "n_in", "n_out", CHOKE_OHM, chassis="pe"),
    )
    bleed = (resistor("bleed", "l_in", "n_in", ratings.bleed_ohm),) if ratings.bleed_ohm else ()
    return (
        *chokes,
        capacitor("x", "l_in", "n_in", nominal("x")),
        *bleed,
        capacitor("y_l", "l_in", "pe", ratings.y_farad),
        capacitor("y_n", "n_in", "pe", ratings.y_farad),
    )


def _tests(ratings: MainsFilterRatings) -> tuple[TestSpec, ...]:
    """Return both chokes, the bleed resistor, the X-capacitor and the standing leakage."""
    return (
        _through("l", "line through"),
        _through("n", "neutral through"),
        _from_plug("l", "line, plug to far side"),
        _from_plug("n", "neutral, plug to far side"),
        TestSpec(
            name="across",
            title="line to neutral",
            between=("l_in", "n_in"),
            function=Function.OHM,
            expect=_bleed(ratings),
            blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT),
            aliases=("bleed",),
            state=MachineState.PLUG_PULLED,
            advice="Wait until the capacitor has charged and the figure stands still.",
        ),
        TestSpec(
            name="x",
            title="X-capacitor",
            between=("l_in", "n_in"),
            function=Function.CAPACITANCE,
            expect=_x_capacitor(ratings),
            blind_to=(FaultMode.OPEN, FaultMode.LEAK, FaultMode.BAD_JOINT),
            aliases=("capacitor", "cap"),
            state=MachineState.PLUG_PULLED,
        ),
        to_earth(
            ("l_in", "pe"),
            (FaultMode.OPEN, FaultMode.DRIFT, FaultMode.BAD_JOINT),
            "Everything behind the filter off. Discharge after 500 V.",
            title="filter and cord to earth",
            joined=("l_in", "n_in"),
        ),
        _current(ratings, "leakage", "current to earth", ("ma",)),
        _current(ratings, "leakage_turned", "current to earth, plug turned", ("ma turned",), is_reversed=True),
    )


def _through(pole: str, title: str) -> TestSpec:
    """Build the test of one choke."""
    return closed(
        pole,
        title,
        (f"{pole}_in", f"{pole}_out"),
        blind_to=(FaultMode.SHORT, FaultMode.LEAK, FaultMode.DRIFT),
        minutes=0.7,
        state=MachineState.UNPLUGGED,
    )


def _from_plug(pole: str, title: str) -> TestSpec:
    """Build the test of cord, plug fuse and choke in a row: one reading for the path."""
    return TestSpec(
        name=f"{pole}_path",
        title=title,
        between=(f"cord.plug_{pole}", f"{pole}_out"),
        function=Function.OHM,
        expect=closed_contact(PATH_LIMIT_OHM),
        blind_to=(FaultMode.SHORT, FaultMode.LEAK, FaultMode.DRIFT),
        aliases=(f"{pole} path",),
        advice="Machine unplugged, plugs on: it asks cord, plug fuse and filter at once.",
    )


def _current(
    ratings: MainsFilterRatings, name: str, title: str, aliases: tuple[str, ...], *, is_reversed: bool = False
) -> TestSpec:
    """Build the test of the standing leakage in one polarity."""
    return TestSpec(
        name=name,
        title=title,
        between=("l_in", "pe"),
        function=Function.LEAKAGE,
        expect=_leakage(ratings),
        blind_to=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.BAD_JOINT),
        aliases=aliases,
        state=MachineState.LIVE,
        is_reversed=is_reversed,
        at_zero=NO_PATH,
        advice="One way round misses a leak near the neutral end: read both.",
    )


def _bleed(ratings: MainsFilterRatings) -> Expect:
    """Return the window of the bleed resistor, OL where there is none."""
    if ratings.bleed_ohm is None:
        return open_contact("discharge is electronic: reads OL")
    value = ratings.bleed_ohm
    basis = f"the filter's print: bleed {show_value(value, Unit.OHM)} ±10 %"
    span = Interval(1 - BLEED_TOLERANCE, 1 + BLEED_TOLERANCE).scaled(value)
    window = Window(span, Unit.OHM, Source.PLATE, basis, nominal=value)
    return lambda _celsius: window


def _x_capacitor(ratings: MainsFilterRatings) -> Expect:
    """Return the window of the X-capacitor."""
    span = Interval(1 - CAPACITOR_TOLERANCE, 1 + CAPACITOR_TOLERANCE).scaled(ratings.x_farad)
    basis = f"the filter's print: {show_value(ratings.x_farad, Unit.FARAD)} ±20 %"
    window = Window(span, Unit.FARAD, Source.PLATE, basis, nominal=ratings.x_farad)
    return lambda _celsius: window


def _leakage(ratings: MainsFilterRatings) -> Expect:
    """Return the window of the current of a whole machine: through the Y-capacitor of the live pole, and its damp."""
    nominal = capacitive_current_a(ratings.y_farad, ratings.volts, ratings.hertz)
    healthy = HEALTHY_A * ratings.volts * ratings.hertz / HEALTHY_VHZ
    most = max(healthy, nominal * (1 + CAPACITOR_TOLERANCE))
    span = Interval(LEAST_SHARE * nominal, most)
    basis = (
        f"the filter's print: {show_value(ratings.y_farad, Unit.FARAD)} at {ratings.volts:g} V {ratings.hertz:g} Hz "
        f"passes {show_value(nominal, Unit.AMPERE, figures=2)}; a healthy whole machine up to "
        f"{show_value(most, Unit.AMPERE, figures=2)}"
    )
    window = Window(span, Unit.AMPERE, Source.PLATE, basis, nominal=nominal)
    return lambda _celsius: window


KIND = PartKind(
    kind="mains_filter",
    title="Mains filter",
    traits=plain(Role.FILTER),
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.LEAK, FaultMode.DRIFT, FaultMode.BAD_JOINT),
    priors={
        FaultMode.OPEN: 0.6,
        FaultMode.SHORT: 0.4,
        FaultMode.LEAK: 0.6,
    },
    repair="replace the filter",
    repair_minutes=15.0,
    explains={
        Symptom.DEAD: 0.2,
        Symptom.TRIPS: 0.25,
        Symptom.SHOCK: 0.25,
        Symptom.SMELLS: 0.2,
        Symptom.STOPS: 0.05,
    },
    ratings=MainsFilterRatings,
    pins=fixed(
        Pin("l_in", "line in"),
        Pin("n_in", "neutral in"),
        Pin("l_out", "line out"),
        Pin("n_out", "neutral out"),
        Pin("pe", "earth tag"),
    ),
    stored_charges=_stored_charges,
    elements=_elements,
    tests=_tests,
)
