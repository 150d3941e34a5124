"""The heating element in the tub: two tags and an earthed sheath."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.element import Element, load
from ohmcensus.core.parts.expect import Expect
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    Brings,
    Heats,
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Ratings,
    Role,
    TestSpec,
)
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.physics.ohm_and_power import element_resistance_ohm, element_window_ohm
from ohmcensus.core.quantity import Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom


class HeaterRatings(Ratings):
    """Rated power and voltage, and where they are stamped."""

    watts: float = Field(gt=0, le=10_000)
    volts: float = Field(gt=0, le=500)
    plate: Literal["element", "machine"] = "element"


def _elements(ratings: HeaterRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the element; its leak goes to its own sheath."""
    return (load("element", "a", "b", nominal("element"), chassis="pe"),)


def _tests(ratings: HeaterRatings) -> tuple[TestSpec, ...]:
    """Return the element and its insulation."""
    return (
        TestSpec(
            name="element",
            title="element",
            between=("a", "b"),
            function=Function.OHM,
            expect=_element(ratings),
            blind_to=(FaultMode.LEAK, FaultMode.BAD_JOINT),
            state=MachineState.PLUG_PULLED,
            load_volts=ratings.volts,
        ),
        to_earth(
            ("a", "pe"),
            (FaultMode.OPEN, FaultMode.SHORT, FaultMode.DRIFT, FaultMode.BAD_JOINT),
            "Both tags off, its earth on. Discharge after 500 V.",
            aliases=("sheath", "insulation"),
            heating=True,
        ),
    )


def _element(ratings: HeaterRatings) -> Expect:
    """Return the window from the plate."""
    on_element = ratings.plate == "element"
    span = element_window_ohm(ratings.volts, ratings.watts, stamped_on_element=on_element)
    slack = "" if on_element else ", 4 % more below: it is the machine's plate"
    window = Window(
        span,
        Unit.OHM,
        Source.PLATE,
        f"the plate: {ratings.watts:g} W at {ratings.volts:g} V, +5/−10 %{slack}",
        nominal=element_resistance_ohm(ratings.volts, ratings.watts),
    )
    return lambda _celsius: window


KIND = PartKind(
    kind="heater",
    title="Heater",
    traits=replace(plain(Role.LOAD), heats=Heats.TUB, governs_heat=True),
    brings=(
        Brings(FaultMode.SHORT, "control_board", FaultMode.WELDED),
        Brings(FaultMode.LEAK, "thermal_cutout", FaultMode.OPEN),
    ),
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.LEAK, FaultMode.DRIFT, FaultMode.BAD_JOINT),
    priors={
        FaultMode.OPEN: 1.6,
        FaultMode.LEAK: 2.4,
        FaultMode.BAD_JOINT: 0.6,
        FaultMode.SHORT: 0.1,
    },
    checks=(PartCheck("tags", "Tags and sheath", "burnt tags, cracks or blisters in the sheath"),),
    repair="replace the heater",
    repair_minutes=30.0,
    explains={
        Symptom.NO_HEAT: 0.5,
        Symptom.TRIPS: 0.55,
        Symptom.SHOCK: 0.2,
        Symptom.CODE: 0.15,
        Symptom.SMELLS: 0.05,
    },
    tools=("socket for the clamp nut", "new clamp nut"),
    cautions=(
        "A heater refitted outside its clip touches the drum: turn the drum by hand and listen before closing up.",
        "A heater that was energised dry means that the level sensing failed: stop.",
    ),
    ratings=HeaterRatings,
    tricks=(
        "The clamp nut is loosened, not taken off: push its bolt in, and the gasket slims and lets go.",
        "Back in: the tip goes into its clip behind the tub first; look with a lamp before the nut is tightened.",
        "The nut swells the gasket: firm, by turns counted past seating or by feel; then watch for weeping.",
        "Tightening can push the sensor beside it out of its seat: press it home last.",
    ),
    pins=fixed(Pin("a", "tag 1"), Pin("b", "tag 2"), Pin("pe", "sheath")),
    elements=_elements,
    tests=_tests,
)
