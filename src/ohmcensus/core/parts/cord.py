"""The mains cord with its plug: three cores, each measured end to end."""

from __future__ import annotations

import math

from pydantic import Field

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.build import plain
from ohmcensus.core.parts.element import Element, between, conductor, wire
from ohmcensus.core.parts.expect import (
    BY_ANY_OHMS,
    BY_OHMMETER,
    NO_PROOF,
    Expect,
    insulation,
    no_short,
    open_contact,
)
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    MachineState,
    Nominal,
    PartCheck,
    PartKind,
    Pin,
    Proves,
    Ratings,
    Role,
    TestSpec,
    Weaker,
)
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.physics.cable import (
    GAUGE_OHM_PER_M,
    core_resistance_ohm,
    core_source,
    grounding_conductor_limit_ohm,
    protective_conductor_limit_ohm,
)
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.symptom import Symptom

# Two contacts of a plug and a tag add about this much to the copper (our choice).
CONTACTS_OHM = 0.05
SMALLEST_LIMIT_OHM = 0.1


# The machine from its plug, and the cord alone with its far ends off.
_AT_THE_PLUG = (
    TestSpec(
        name="insulation",
        title="whole machine to earth",
        between=("plug_l", "plug_pe"),
        function=Function.INSULATION,
        expect=insulation(heating=False),
        blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.SHORT),
        aliases=("whole", "machine", "megohm"),
        proves=Proves.INSULATION,
        joined=("plug_l", "plug_n"),
        minutes=1.5,
        advice="L and N joined, door shut, switched on, hands off: what hangs behind an open relay is not asked. "
        "250 V where a surge arrester goes to earth.",
    ),
    to_earth(
        ("plug_l", "plug_pe"),
        (FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.SHORT),
        "L and N joined, both off the filter; the earth stays.",
        name="own",
        title="to earth, its far ends off",
        aliases=(),
        joined=("plug_l", "plug_n"),
    ),
    TestSpec(
        name="across",
        title="line to neutral at the plug",
        between=("plug_l", "plug_n"),
        function=Function.OHM,
        expect=no_short(),
        blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.LEAK),
        aliases=("short",),
        minutes=0.7,
        advice="The machine as it is, door shut, switched on: what a relay holds open is read from its output.",
    ),
    TestSpec(
        name="n_pe",
        title="N alone to earth",
        between=("plug_n", "plug_pe"),
        function=Function.INSULATION,
        expect=insulation(heating=False),
        blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.SHORT),
        aliases=("neutral to earth",),
        minutes=1.5,
        weaker=BY_OHMMETER,
        advice="Machine unplugged, N alone: a switch that breaks one pole only leaves N joined.",
    ),
    TestSpec(
        name="cores",
        title="line to neutral, far end off",
        between=("plug_l", "plug_n"),
        function=Function.OHM,
        expect=open_contact("core to core reads OL with the far end off"),
        blind_to=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.LEAK),
        aliases=("core to core",),
        state=MachineState.PLUG_PULLED,
        minutes=2.0,
    ),
)


class CordRatings(Ratings):
    """Length of the cord and size of its cores."""

    length_m: float = Field(gt=0, le=50)
    area_mm2: float = Field(gt=0, le=4)


def _pins(ratings: CordRatings) -> tuple[Pin, ...]:
    """Return the three pins of the plug and the three ends inside."""
    plug = tuple(Pin(f"plug_{core}", f"plug, {word}") for core, word in _CORES)
    return plug + tuple(Pin(f"end_{core}", f"inside, {word}") for core, word in _CORES)


def _elements(ratings: CordRatings, nominal: Nominal) -> tuple[Element, ...]:
    """Return the three cores and the insulation between line and neutral."""
    ohm = core_resistance_ohm(ratings.length_m, ratings.area_mm2)
    cores = tuple(wire(core, f"plug_{core}", f"end_{core}", ohm) for core in ("l", "n"))
    earth = conductor("pe", "plug_pe", "end_pe", ohm)
    return (*cores, earth, between("cores", "end_l", "end_n"))


def _tests(ratings: CordRatings) -> tuple[TestSpec, ...]:
    """Return each core end to end, the earth to its limit, core against core, and the joints of the cores."""
    return (
        _end_to_end("l", "l", "line core, end to end", _whole(), BY_ANY_OHMS),
        _end_to_end("n", "n", "neutral core, end to end", _whole(), BY_ANY_OHMS),
        _end_to_end("pe", "pe", "earth pin to chassis", _earth(ratings), NO_PROOF),
        *_AT_THE_PLUG,
        _end_to_end("l_joint", "l", "line core with its joints", _joint(ratings), NO_PROOF),
        _end_to_end("n_joint", "n", "neutral core with its joints", _joint(ratings), NO_PROOF),
    )


_CORES = (("l", "line"), ("n", "neutral"), ("pe", "earth"))


def _end_to_end(name: str, core: str, title: str, expect: Expect, weaker: Weaker) -> TestSpec:
    """Build a test of one core."""
    return TestSpec(
        name=name,
        title=title,
        between=(f"plug_{core}", f"end_{core}"),
        function=Function.CONTINUITY,
        expect=expect,
        blind_to=(FaultMode.LEAK, FaultMode.SHORT),
        aliases=("earth",) if core == "pe" else (),
        minutes=0.7,
        weaker=weaker,
        proves=Proves.EARTH if core == "pe" else None,
        advice="Flex the cord at both ends while you read.",
    )


# Leads, tags and dirty pins make 0.1 to 0.5 Ω on a sound core (common practice, no source).
WHOLE_CORE_OHM = 1.0


def _whole() -> Expect:
    """Return what a core reads that is whole, by any meter."""
    basis = "common practice: whole and steady while the cord is bent; leads, tags and dirty pins make 0.1–0.5 Ω"
    window = Window(Interval(-math.inf, WHOLE_CORE_OHM), Unit.OHM, Source.COMMON, basis)
    return lambda _celsius: window


def _joint(ratings: CordRatings) -> Expect:
    """Return the window of a core with its joints: its copper and two contacts, at least 0.1 Ω."""

    def expect(celsius: float) -> Window:
        copper = core_resistance_ohm(ratings.length_m, ratings.area_mm2, celsius=celsius)
        limit = max(SMALLEST_LIMIT_OHM, copper + CONTACTS_OHM)
        basis = (
            f"the cord: {ratings.length_m:g} m of {ratings.area_mm2:g} mm² is {copper:.3f} Ω "
            f"({core_source(ratings.area_mm2)}); under {limit:.2g} Ω with its contacts"
        )
        return Window(Interval(-math.inf, limit), Unit.OHM, Source.PLATE, basis, nominal=copper)

    return expect


def _earth(ratings: CordRatings) -> Expect:
    """Return the window of the protective conductor."""

    def expect(celsius: float) -> Window:
        copper = core_resistance_ohm(ratings.length_m, ratings.area_mm2, celsius=celsius)
        if ratings.area_mm2 in GAUGE_OHM_PER_M:
            limit = grounding_conductor_limit_ohm(ratings.length_m, ratings.area_mm2)
            basis = f"common practice at 120 V: at most {limit:.2g} Ω, 0.1 Ω and the cord's own copper"
            return Window(Interval(-math.inf, limit), Unit.OHM, Source.COMMON, basis, nominal=copper)
        limit = protective_conductor_limit_ohm(ratings.length_m)
        basis = f"EN 50678: at most {limit:.2g} Ω for a cord of {ratings.length_m:g} m"
        return Window(Interval(-math.inf, limit), Unit.OHM, Source.PLATE, basis, nominal=copper)

    return expect


KIND = PartKind(
    kind="cord",
    title="Cord",
    traits=plain(Role.CORD),
    seen_outside=("cord",),
    tricks=("The earth goes on first and comes off last; it keeps the longest slack in the strain relief.",),
    fault_modes=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.LEAK, FaultMode.SHORT),
    priors={
        FaultMode.OPEN: 0.6,
        FaultMode.BAD_JOINT: 0.5,
        FaultMode.LEAK: 0.3,
        FaultMode.SHORT: 0.1,
    },
    checks=(PartCheck("cord", "Cord, along its length", "crushed, cut, a warm or brown plug"),),
    repair="replace the cord",
    repair_minutes=20.0,
    explains={
        Symptom.DEAD: 0.2,
        Symptom.STOPS: 0.1,
        Symptom.TRIPS: 0.1,
        Symptom.SHOCK: 0.35,
        Symptom.SMELLS: 0.15,
    },
    ratings=CordRatings,
    pins=_pins,
    elements=_elements,
    tests=_tests,
)
