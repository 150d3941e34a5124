"""What many kinds are built of: fixed answers, contacts, windings, sensors, and the traits of the usual sorts."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any, TypeVar

from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import Element
from ohmcensus.core.parts.expect import Expect, LowSupply, closed_contact, common, low_supply, open_contact, toggling
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import (
    HEALTHY_INSULATION_OHM,
    Heats,
    MachineState,
    PartCheck,
    PartKind,
    Pin,
    Role,
    TestSpec,
    Traits,
    Waves,
)
from ohmcensus.core.quantity import Unit
from ohmcensus.core.symptom import Symptom

Row = TypeVar("Row")


def fixed(*rows: Row) -> Callable[[Any], tuple[Row, ...]]:
    """Return what a kind has whatever is printed on the part."""
    return lambda _ratings: rows


TWO_TAGS = fixed(Pin("a", "tag 1"), Pin("b", "tag 2"))


def plain(role: Role) -> Traits:
    """Return the traits of what lies in the mains as it is: no electronics, nothing heated, no wave cut."""
    return Traits(
        role=role,
        off_before_500_v=False,
        waves=Waves.SINE,
        heats=Heats.NOTHING,
        starts_direct=False,
        governs_heat=False,
        healthy_insulation_ohm=HEALTHY_INSULATION_OHM,
    )


def electronic(role: Role) -> Traits:
    """Return the traits of electronics: off before 500 V."""
    return replace(plain(role), off_before_500_v=True)


def closed(name: str, title: str, between: tuple[str, str], **more: Any) -> TestSpec:
    """Return the test of a contact that must be closed, its part's plug pulled.

    Parameters
    ----------
    name, title, between
        As of a ``TestSpec``.
    more
        Whatever else differs from a plain contact: minutes, advice, sets, blind_to.
    """
    return _contact(name, title, between, closed_contact(), more)


def opened(name: str, title: str, between: tuple[str, str], rule: str, **more: Any) -> TestSpec:
    """Return the test of a contact that must be open, its part's plug pulled; ``rule`` says why.

    Parameters
    ----------
    name, title, between
        As of a ``TestSpec``.
    rule
        Why it is open, for the basis of its window.
    more
        Whatever else differs.
    """
    return _contact(name, title, between, open_contact(rule), more)


def _contact(name: str, title: str, between: tuple[str, str], expect: Expect, more: Mapping[str, Any]) -> TestSpec:
    known = {"function": Function.OHM, "state": MachineState.PLUG_PULLED, **more}
    return TestSpec(name=name, title=title, between=between, expect=expect, **known)


def winding(name: str, title: str, between: tuple[str, str], lo: float, hi: float, rule: str, **more: Any) -> TestSpec:
    """Return the test of a copper winding by its common range in ohms, its part's plug pulled.

    Parameters
    ----------
    name, title, between
        As of a ``TestSpec``.
    lo, hi
        Common range in ohms at 20 °C.
    rule
        The range in words.
    more
        Whatever else differs.
    """
    return _contact(name, title, between, common(lo, hi, Unit.OHM, rule), {"copper": True, **more})


def live_at_ground(name: str, title: str, pin: str, expect: Expect, function: Function, **more: Any) -> TestSpec:
    """Return the live test of one point of a sensor or a board against its ground.

    Parameters
    ----------
    name, title
        As of a ``TestSpec``.
    pin
        The point that is read against ``gnd``.
    expect
        Its window.
    function
        What the meter does.
    more
        Whatever else differs.
    """
    return TestSpec(
        name=name,
        title=title,
        between=(pin, "gnd"),
        function=function,
        expect=expect,
        state=MachineState.LIVE,
        **more,
    )


def supply_test(ratings: LowSupply) -> TestSpec:
    """Return the test of the supply of a sensor or a board."""
    return live_at_ground(
        "supply",
        "supply",
        "vcc",
        low_supply(ratings.supply_volts),
        Function.VOLTS_DC,
        advice="A live test: the wiring counts as mains. No earthed instrument.",
    )


def output_test(name: str, title: str, pin: str, ratings: LowSupply, advice: str, **more: Any) -> TestSpec:
    """Return the live test of an output that toggles, or of a line that talks.

    Parameters
    ----------
    name, title
        As of a ``TestSpec``.
    pin
        The output.
    ratings
        Supply that it is held against where none was measured.
    advice
        What to do with the hands.
    more
        Whatever else differs; ``may_rest`` for a line whose mean a meter shows.
    """
    expect = toggling(ratings.supply_volts, may_rest=more.pop("may_rest", False))
    return live_at_ground(name, title, pin, expect, Function.VOLTS_DC, advice=advice, **more)


# What fails in a sensor with electronics, and in a switch.
SENSOR_MODES = (FaultMode.OPEN, FaultMode.DRIFT, FaultMode.BAD_JOINT)
SWITCH_MODES = (FaultMode.STUCK_OPEN, FaultMode.WELDED, FaultMode.BAD_JOINT)
MOTOR_MODES = (FaultMode.OPEN, FaultMode.SHORTED_TURNS, FaultMode.SHORT, FaultMode.LEAK, FaultMode.BAD_JOINT)


def sensor(  # noqa: PLR0913 - what differs from sensor to sensor
    kind: str,
    title: str,
    role: Role,
    pins: tuple[Pin, ...],
    element: Element,
    tests: Callable[[LowSupply], tuple[TestSpec, ...]],
    *,
    priors: Mapping[FaultMode, float],
    explains: Mapping[Symptom, float],
    checks: tuple[PartCheck, ...] = (),
    tricks: tuple[str, ...] = (),
) -> PartKind[LowSupply]:
    """Return a kind of sensor with electronics: its supply and ground, its outputs, what an ohmmeter sees of it.

    Parameters
    ----------
    kind, title, role
        Its name, its title, what it is for.
    pins
        Its outputs; supply and ground are added.
    element
        What an ohmmeter sees of it.
    tests
        Its live tests by its supply, the usual one first.
    priors, explains, checks, tricks
        As of a ``PartKind``.
    """
    return PartKind(
        kind=kind,
        title=title,
        traits=electronic(role),
        ratings=LowSupply,
        fault_modes=SENSOR_MODES,
        priors=priors,
        explains=explains,
        checks=checks,
        tricks=tricks,
        repair_minutes=15.0,
        pins=fixed(Pin("vcc", "supply"), Pin("gnd", "ground"), *pins),
        elements=lambda _ratings, _nominal: (element,),
        tests=tests,
    )
