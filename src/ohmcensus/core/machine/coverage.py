"""What a test of a machine really reaches, and which faults of its part a good reading does not exclude."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.netlist import Configuration, netlist
from ohmcensus.core.machine.probe import LIVE, PREDICTED, Probe
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import CHASSIS
from ohmcensus.core.parts.kind import MachineState, Role, TestSpec
from ohmcensus.core.sheet import Part, Sheet

MAINS_PLUG = "mains_plug"
# Wires, chokes, fuses and closed contacts are under this; loads are above (ours).
WIRE_OHM = 0.5
# Where a tester is put on: at the plug, at the filter, or at the wires behind it, whichever is still connected.
POLES = (("cord.plug_l", "cord.plug_n"), ("filter.l_in", "filter.n_in"))
INSIDE = ("filter.l_out", "filter.n_out")
# Loads that are next to nothing beside the insulation of a sound part (ours).
LOAD_OHM = 1e5


@dataclass(frozen=True, slots=True)
class Driven:
    """How far the poles come: parts reached from line, only from neutral, and not at all."""

    from_line: tuple[str, ...]
    only_from_neutral: tuple[str, ...]
    not_reached: tuple[str, ...]


def configuration_of(sheet: Sheet, part: Part, spec: TestSpec) -> Configuration:
    """Return the configuration that a test is made in.

    Dead tests have the mains plug out; a test with the part's own plug pulled has every plug out that names the
    part. The outlet is asked with the machine unplugged.

    Parameters
    ----------
    sheet
        The machine's type.
    part
        Whose test.
    spec
        Which.
    """
    pulled: set[str] = set()
    if MAINS_PLUG in sheet.plugs and not _is_plugged_in(part, spec):
        pulled.add(MAINS_PLUG)
    if spec.is_bare:
        pulled |= sheet.plugs.keys()
    if spec.state is MachineState.PLUG_PULLED:
        pulled |= {name for name, plug in sheet.plugs.items() if part.id in plug.parts}
    sets = {name: value for name, value in spec.sets.items() if value in sheet.states.get(name, ())}
    return Configuration(frozenset(pulled), sets)


def _is_plugged_in(part: Part, spec: TestSpec) -> bool:
    """Tell whether the machine hangs on its plug: the outlet's volts are asked without it, its amperes with it."""
    return spec.state is MachineState.LIVE and (part.traits.role is not Role.OUTLET or spec.function is Function.AMPERE)


def probe_of(part: Part, spec: TestSpec) -> Probe:
    """Return the instrument of a test on its points."""
    between = (part.point(spec.between[0]), part.point(spec.between[1]))
    joined = tuple(part.point(pin) for pin in spec.joined)
    return Probe(spec.function, between, joined, spec.is_reversed)


def is_answered(sheet: Sheet, part: Part, spec: TestSpec) -> bool:
    """Tell whether the circuit answers a test: it knows the mains, no length, no sensor, no drum turned by hand."""
    is_turned = spec.function in LIVE and spec.state is not MachineState.LIVE
    is_mains = spec.function in PREDICTED and spec.function not in {Function.VOLTS_DC, Function.HERTZ}
    is_house = part.traits.role is Role.OUTLET and spec.function is not Function.AMPERE
    points = [part.point(pin) for pin in (*spec.between, *spec.joined)]
    is_there = all(point == CHASSIS or point in sheet.points for point in points)
    return bool(sheet.nets) and is_mains and not is_house and not is_turned and is_there


def driven(
    sheet: Sheet,
    configuration: Configuration,
    *,
    without: frozenset[str] = frozenset(),
    below_ohm: float = WIRE_OHM,
) -> Driven:
    """Return which parts line and neutral come to in a configuration of the machine.

    Parameters
    ----------
    sheet
        The machine's type.
    configuration
        Plugs and states.
    without
        Parts that hang loose, their own plugs off: the poles are put on behind them.
    below_ohm
        What a pole comes through: wires alone, or loads too, as it does where next to no current flows.

    Notes
    -----
    A part stands at line potential where wires, closed contacts and fuses lead to it; what is only behind
    another load is not counted. A part behind an open relay is reached from neutral alone: with line live
    a test says nothing of it.
    """
    return _driven(sheet, configuration.pulled, tuple(sorted(configuration.states.items())), without, below_ohm)


@lru_cache(maxsize=512)
def _driven(
    sheet: Sheet,
    pulled: frozenset[str],
    states: tuple[tuple[str, str], ...],
    without: frozenset[str],
    below_ohm: float,
) -> Driven:
    circuit = netlist(sheet, Configuration(pulled, dict(states)))
    branches = [branch for branch in circuit.branches if branch.id.partition(".")[0] not in without]
    network = Network(branches, circuit.joints, CHASSIS)
    poles = next((ends for ends in POLES if ends[0].partition(".")[0] not in without), INSIDE)
    line, neutral = (
        {name.partition(".")[0] for name in network.touched([start], below_ohm=below_ohm)} for start in poles
    )
    order = [part.id for part in sheet.parts if part.traits.role is not Role.OUTLET and part.id not in without]
    return Driven(
        tuple(part for part in order if part in line),
        tuple(part for part in order if part in neutral - line),
        tuple(part for part in order if part not in line | neutral),
    )
