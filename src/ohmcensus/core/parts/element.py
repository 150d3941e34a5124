"""What parts are built of electrically: loads, contacts, wires, capacitors, each with its ways to fail.

A fault is a new value of an existing branch, never a new branch: an open load has a series resistance
of gigaohms, a leaking one a path of kilo-ohms where a healthy one has gigaohms.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit import Branch
from ohmcensus.core.parts.fault import FaultMode

# Values of a healthy part (ours): across a load, from a load to the chassis, across an open contact.
SHUNT_OHM = 1e12
HEALTHY_LEAK_OHM = 2e10
OPEN_OHM = 1e12
CONTACT_OHM = 0.02
JOINT_OHM = 0.01
# What a bad joint adds to a wire or a contact as a rule.
JOINT_FAULT_OHM = 3.0
CHASSIS = "chassis"
# Where the earth wire of a part's body ends on the machine's earth.
STRAP = "strap"
EARTH_OPEN_OHM = 1e11
# Middle of what six alike valves show to the diode test (common range 0.3–0.7 V).
FORWARD_VOLTS = 0.5
# Less than this between two nodes and the matrix loses its digits; of a capacitance at least this is left.
SMALLEST_OHM = 1e-3
SMALLEST_FACTOR = 1e-6
# A joint is bad from this resistance, and open from where the other begins; a leak is one up to just under what a
# healthy part reads; so much of the faults that go both ways go down (ours).
FAINT_JOINT_OHM, OPENS_FROM_OHM, FAINT_LEAK_OHM, DEAD_LEAK_OHM = 0.3, 2e6, 1.5e7, 1.0
TURNED = 0.5
# A short from nothing to what chafed leads carry off, to what still hides the drop of a junction, to what a
# capacitor holds no charge beside (ours).
FAINT_SHORT_OHM, FAINT_JUNCTION_OHM, FAINT_CAPACITOR_OHM = 1e3, 400.0, 1e5

# A number, or one number a specimen.
Value = TypeVar("Value", float, Any)


class Rule(StrEnum):
    """How a fault's value changes a resistance."""

    SET = "set"
    ADD = "add"
    TIMES = "times"
    LESS = "less"
    FARAD_TIMES = "farad_times"


@dataclass(frozen=True, slots=True)
class FaultEffect:
    """What a fault does: to which branches, how, and by which value where none is stated.

    The value is in ohms, for both ``TIMES`` a factor, for ``LESS`` the fraction that is lost; ``mild`` is the
    least that still matters, ``severe`` the worst met with, ``faintest`` the least that is met at all, ``mild`` where
    None (ours). From the faintest to the worst values spread evenly on a logarithmic scale, half of them turned upside
    down where it goes both ways: between two faults of a part no reading is left that neither explains.
    """

    branches: tuple[str, ...]
    rule: Rule
    usual: float
    mild: float
    severe: float
    faintest: float | None = None
    goes_both_ways: bool = False

    def spread(self, chance: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return how severe a fault is by where chance lies from 0 to 1 [specimen]."""
        least = self.mild if self.faintest is None else self.faintest
        place = chance * 2.0 % 1.0 if self.goes_both_ways else chance
        amount = np.asarray(least * (self.severe / least) ** place)
        return np.where(chance < TURNED, 1 / amount, amount) if self.goes_both_ways else amount

    def applied(self, branch: Branch, value: float | None) -> Branch:
        """Return a branch with the fault, never under what the matrix can hold."""
        amount = self.usual if value is None else value
        if self.rule is Rule.FARAD_TIMES and branch.farad is not None:
            return replace(branch, farad=branch.farad * max(amount, SMALLEST_FACTOR))
        return replace(branch, ohm=max(SMALLEST_OHM, self.ohm(branch.ohm, amount)))

    def ohm(self, ohm: Value, amount: Value) -> Value:
        """Return a resistance with the fault; a number or an array of specimens."""
        if self.rule is Rule.SET:
            return amount
        if self.rule is Rule.ADD:
            return ohm + amount
        return ohm * amount if self.rule is Rule.TIMES else ohm * (1 - amount)


@dataclass(frozen=True, slots=True)
class ClosedWhen:
    """A contact is closed while a state of the machine has one of some values."""

    state: str
    values: frozenset[str]


@dataclass(frozen=True, slots=True)
class Element:
    """Branches of one part that belong together.

    Parameters
    ----------
    branches
        With the part's own pin names, inner nodes and ``chassis``.
    effects
        What each fault mode does to them.
    closed_when
        State that closes the contact among them, None for what is always there.
    contact
        Id of the branch that opens and closes.
    is_linear
        Whether superposition holds: false for rectifiers and what heats itself.
    is_gated
        Whether a gate beside the junction lets current pass the other way too, as in an inverter.
    """

    branches: tuple[Branch, ...]
    effects: Mapping[FaultMode, FaultEffect] = field(default_factory=dict)
    closed_when: ClosedWhen | None = None
    contact: str = ""
    is_linear: bool = True
    is_gated: bool = False

    @property
    def name(self) -> str:
        """What the element is called within its part: that of its first branch."""
        return self.branches[0].id.removesuffix("_1")


def _opened(branch: str) -> FaultEffect:
    return FaultEffect((branch,), Rule.SET, 1e11, OPENS_FROM_OHM, OPEN_OHM)


def _shorted(branch: str, faintest: float) -> FaultEffect:
    return FaultEffect((branch,), Rule.SET, 0.5, 5.0, 0.02, faintest)


def _joint(branch: str) -> FaultEffect:
    return FaultEffect((branch,), Rule.ADD, JOINT_FAULT_OHM, 0.5, OPENS_FROM_OHM, FAINT_JOINT_OHM)


def _leak(branch: str) -> FaultEffect:
    return FaultEffect((branch,), Rule.SET, 50e3, 200e3, DEAD_LEAK_OHM, FAINT_LEAK_OHM)


def load(  # noqa: PLR0913 - one argument for each thing that a load is
    name: str,
    a: str,
    b: str,
    ohm: float,
    *,
    henry: float = 0.0,
    chassis: str = CHASSIS,
    leak_at: float = 0.5,
) -> Element:
    """Return a load: pin – f·R – middle – (1−f)·R – pin, a shunt across it, a leak from its middle.

    Parameters
    ----------
    name, a, b
        What it is called, and its two pins.
    ohm, henry
        Resistance and inductance between the pins.
    chassis
        Where its leak goes: the machine's chassis, or the part's own earthed body.
    leak_at
        Share of the resistance before the place that leaks, 0 to 1.
    """
    middle = f"{name}_middle"
    first, second, shunt, leak = f"{name}_1", f"{name}_2", f"{name}_shunt", f"{name}_leak"
    return Element(
        branches=(
            Branch(first, a, middle, ohm * leak_at, henry * leak_at),
            Branch(second, middle, b, ohm * (1 - leak_at), henry * (1 - leak_at)),
            Branch(shunt, a, b, SHUNT_OHM),
            Branch(leak, middle, chassis, HEALTHY_LEAK_OHM),
        ),
        effects={
            FaultMode.OPEN: _opened(first),
            FaultMode.SHORT: FaultEffect((shunt,), Rule.SET, 0.5, 5.0, 0.02, max(5.0, 0.4 * ohm)),
            FaultMode.SHORTED_TURNS: FaultEffect((first, second), Rule.LESS, 0.15, 0.05, 0.9, 0.03),
            FaultMode.LEAK: _leak(leak),
            FaultMode.DRIFT: FaultEffect((first, second), Rule.TIMES, 1.4, 1.2, 4.0, 1.08, goes_both_ways=True),
            FaultMode.BAD_JOINT: replace(_joint(first), usual=5.0),
        },
    )


def fuse(name: str, a: str, b: str, *, ohm: float = CONTACT_OHM) -> Element:
    """Return a fuse: whole, blown or badly seated; it can neither weld nor stick."""
    whole = contact(name, a, b, None, ohm=ohm)
    own = {mode: whole.effects[mode] for mode in (FaultMode.OPEN, FaultMode.BAD_JOINT)}
    return replace(whole, effects=own)


def contact(name: str, a: str, b: str, closed_when: ClosedWhen | None, *, ohm: float = CONTACT_OHM) -> Element:
    """Return a contact; one without a condition is always closed, as a cold thermostat is.

    Parameters
    ----------
    name, a, b
        What it is called, and its two pins.
    closed_when
        State that closes it, None for always.
    ohm
        Closed.
    """
    return Element(
        branches=(Branch(name, a, b, ohm),),
        effects={
            FaultMode.WELDED: FaultEffect((name,), Rule.SET, CONTACT_OHM, 0.5, CONTACT_OHM / 2),
            FaultMode.STUCK_OPEN: replace(_opened(name), usual=OPEN_OHM),
            FaultMode.OPEN: replace(_opened(name), usual=OPEN_OHM),
            FaultMode.BAD_JOINT: _joint(name),
        },
        closed_when=closed_when,
        contact=name,
    )


def wire(name: str, a: str, b: str, ohm: float, *, chassis: str = CHASSIS) -> Element:
    """Return a conductor with what may chafe on it; a leak starts at its first end.

    Parameters
    ----------
    name, a, b
        What it is called, and its two ends.
    ohm
        End to end.
    chassis
        Where its leak goes.
    """
    leak = f"{name}_leak"
    return Element(
        branches=(Branch(name, a, b, max(ohm, JOINT_OHM)), Branch(leak, a, chassis, HEALTHY_LEAK_OHM)),
        effects={
            FaultMode.OPEN: _opened(name),
            FaultMode.BAD_JOINT: _joint(name),
            FaultMode.LEAK: _leak(leak),
        },
    )


def conductor(name: str, a: str, b: str, ohm: float) -> Element:
    """Return a conductor that is earth itself, and so cannot leak to it."""
    whole = wire(name, a, b, ohm)
    effects: dict[FaultMode, FaultEffect] = {
        mode: effect for mode, effect in whole.effects.items() if mode is not FaultMode.LEAK
    }
    effects[FaultMode.EARTH_OPEN] = effects[FaultMode.OPEN]
    return Element(branches=whole.branches[:1], effects=effects)


def between(name: str, a: str, b: str, mode: FaultMode = FaultMode.SHORT) -> Element:
    """Return the insulation between two conductors, which may be pierced."""
    return Element(branches=(Branch(name, a, b, SHUNT_OHM),), effects={mode: _shorted(name, FAINT_SHORT_OHM)})


def resistor(name: str, a: str, b: str, ohm: float, *, is_linear: bool = True) -> Element:
    """Return a plain resistance that is a part of a board or a filter.

    Parameters
    ----------
    name, a, b
        What it is called, and its two pins.
    ohm
        Between them.
    is_linear
        Whether superposition holds.
    """
    return Element(
        branches=(Branch(name, a, b, ohm),),
        effects={
            FaultMode.OPEN: _opened(name),
            FaultMode.DRIFT: FaultEffect((name,), Rule.TIMES, 1.4, 1.2, 4.0, 1.08, goes_both_ways=True),
        },
        is_linear=is_linear,
    )


def junction(name: str, a: str, b: str, ohm: float, *, is_gated: bool = False) -> Element:
    """Return a rectifier from a to b; an ohmmeter sees its resistance, the diode test its drop.

    Parameters
    ----------
    name, a, b
        What it is called; current passes from a to b.
    ohm
        What an ohmmeter sees.
    is_gated
        Whether a gate lets current pass the other way too.
    """
    return Element(
        branches=(Branch(name, a, b, ohm, forward_volts=FORWARD_VOLTS),),
        effects={
            FaultMode.SHORT: _shorted(name, FAINT_JUNCTION_OHM),
            FaultMode.OPEN: FaultEffect((name,), Rule.SET, 1e11, 1e10, 1e12),
        },
        is_linear=False,
        is_gated=is_gated,
    )


def capacitor(name: str, a: str, b: str, farad: float, *, esr_ohm: float = 0.1) -> Element:
    """Return a capacitor with its series resistance, and the insulation that may fail beside it.

    Parameters
    ----------
    name, a, b
        What it is called, and its two pins.
    farad, esr_ohm
        Capacitance and series resistance.
    """
    short = f"{name}_short"
    return Element(
        branches=(Branch(name, a, b, esr_ohm, farad=farad), Branch(short, a, b, SHUNT_OHM)),
        effects={
            FaultMode.SHORT: _shorted(short, FAINT_CAPACITOR_OHM),
            FaultMode.DRIFT: FaultEffect((name,), Rule.FARAD_TIMES, 0.5, 0.8, 0.02, 0.94),
            FaultMode.OPEN: _opened(name),
        },
    )
