"""One run through the programme, watched: at which step which fault shows, worked out from the circuit.

A fault shows at the first step in which a load that should run has lost its current, or one runs that should not.
What no load tells (a belt, a sensor) shows as its part is known to show.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.network import Network, stamp
from ohmcensus.core.machine.asked import THROUGH, TRIPS, run_outcomes, steps
from ohmcensus.core.machine.likely import LikelyFault, likely_faults, symptom_chances
from ohmcensus.core.machine.netlist import Configuration, effects_of, elements_of, netlist
from ohmcensus.core.machine.probe import Probe, prepared
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.control_board import CLOSED, HEATER_RELAY
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Symptom

RUN_MINUTES = 6.0
# A load runs from this share of its own current on, has lost it below the next, and runs wild above the last (ours).
RUNS_FROM, LOST_BELOW, WILD_ABOVE = 0.2, 0.6, 1.8
# A watched run shows what it should nearly always; of leaks and shorts so many open a protective device (ours).
SEEN, LEAK_TRIPS, SHORT_TRIPS = 0.93, 0.5, 0.6
# The step in which each symptom is seen, the first that a sheet has.
_SEEN_IN: Mapping[Symptom, tuple[str, ...]] = {
    Symptom.DEAD: ("lock", "fill"),
    Symptom.NO_START: ("lock", "fill"),
    Symptom.NO_LOCK: ("lock", "fill"),
    Symptom.NO_WATER: ("fill", "prewash"),
    Symptom.OVERFILLS: ("fill", "prewash"),
    Symptom.HUMS: ("turn", "wash"),
    Symptom.NO_TURN: ("turn", "wash"),
    Symptom.NO_SPIN: ("spin",),
    Symptom.NO_DRAIN: ("drain",),
    Symptom.NO_HEAT: ("heat",),
    Symptom.OVERHEATS: ("heat",),
    Symptom.STOPS: ("turn", "wash"),
}
# Symptoms that a run through shows as nothing: it washes, and is noisy, or leaks.
_UNSEEN = frozenset({Symptom.NOISY, Symptom.LEAKS, Symptom.SMELLS, Symptom.CODE, Symptom.NO_OPEN, Symptom.SHOCK})


@dataclass(frozen=True)
class RunThrough:
    """What a watched run comes to.

    Parameters
    ----------
    outcomes
        The steps, of which the first that fails is told; then *through* and *trips*.
    chance
        Chance of each outcome [fault, outcome], the faults as ``likely_faults`` has them; the last row is a sound
        machine.
    """

    outcomes: tuple[str, ...]
    chance: NDArray[np.float64]


@lru_cache(maxsize=16)
def run_through(sheet: Sheet) -> RunThrough:
    """Return the chances of every outcome of a watched run under every fault.

    Notes
    -----
    One admittance matrix a step, all faults solved beside each other.
    """
    faults = likely_faults(sheet)
    failing = np.array([_failing(sheet, step, faults) for step in steps(sheet)]).reshape(-1, len(faults))
    outcomes = run_outcomes(sheet)
    rows = [_row(sheet, fault, failing[:, index], outcomes) for index, fault in enumerate(faults)]
    sound = np.zeros(len(outcomes))
    sound[-2] = 1.0
    told = np.stack([*rows, sound])
    return RunThrough(outcomes, SEEN * told + (1 - SEEN) / len(outcomes))


def states_at(sheet: Sheet, step: str) -> dict[str, str]:
    """Return how the machine stands in a step: shut, filled where it should be, the heater's relay as it should be."""
    states = {"programme": step}
    for name in ("door", "lid"):
        if name in sheet.states:
            states[name] = sheet.states[name][-1]
    if HEATER_RELAY in sheet.states:
        states[HEATER_RELAY] = CLOSED if step == "heat" else "open"
    if "water" in sheet.states and step not in {"lock", "fill", "prewash"}:
        states["water"] = "at level"
    if "shifter" in sheet.states and step == "spin":
        states["shifter"] = "spin"
    return states


def _failing(sheet: Sheet, step: str, faults: Sequence[LikelyFault]) -> NDArray[np.bool_]:
    """Tell of every fault whether some load has lost its current in a step, or one runs wild [fault]."""
    configuration = Configuration(states=states_at(sheet, step))
    circuit = netlist(sheet, configuration)
    probe = Probe(Function.VOLTS_AC, ("cord.plug_l", "cord.plug_n"))
    network = prepared(sheet, probe, circuit).network
    omega = 2 * math.pi * sheet.hertz
    by_id = {branch.id: branch for branch in network.branches}
    ends = dict(zip([branch.id for branch in network.branches], network.ends, strict=True))
    base = network.matrix(omega)
    matrices = np.repeat(base[None], len(faults) + 1, axis=0)
    changed = [_changed(sheet, fault, by_id) for fault in faults]
    for row, branches in enumerate(changed):
        for name, branch in branches.items():
            # Node 0 is the reference: the matrix does not hold it.
            one, other = (node - 1 if node else None for node in ends[name])
            stamp(matrices[row], one, other, branch.admittance_s(omega) - by_id[name].admittance_s(omega))
    volts = np.linalg.solve(matrices, _injected(network)[None, 1:, None])[:, :, 0]
    volts = np.concatenate([np.zeros((len(volts), 1)), volts], axis=1)
    loads = [name for name in _loads(sheet) if name in by_id]
    current = np.empty((len(loads), len(volts)))
    for at, name in enumerate(loads):
        own = np.full(len(volts), by_id[name].admittance_s(omega))
        for row, branches in enumerate(changed):
            if name in branches:
                own[row] = branches[name].admittance_s(omega)
        a, b = ends[name]
        # Half a load lies between its pin and its middle: its own current is U times this admittance, halved.
        current[at] = np.abs((volts[:, a] - volts[:, b]) * own) / np.abs(sheet.volts * by_id[name].admittance_s(omega))
    runs = current[:, -1] >= RUNS_FROM / 2
    share = current / np.maximum(current[:, -1:], 1e-9)
    lost = runs[:, None] & ((share < LOST_BELOW) | (share > WILD_ABOVE))
    wild = ~runs[:, None] & (current >= RUNS_FROM)
    return np.asarray(np.any(lost | wild, axis=0))[:-1]


def _injected(network: Network) -> NDArray[np.complex128]:
    injected = np.zeros(network.nodes, dtype=np.complex128)
    for source in network.sources:
        injected[network.node(source.plus)] += source.volts / source.ohm
        injected[network.node(source.minus)] -= source.volts / source.ohm
    return injected


def _changed(sheet: Sheet, row: LikelyFault, by_id: Mapping[str, Branch]) -> dict[str, Branch]:
    if row.fault is None or not row.fault.element:
        return {}
    return {name: effect.applied(by_id[name], None) for name, effect in effects_of(sheet, row.fault) if name in by_id}


def _loads(sheet: Sheet) -> tuple[str, ...]:
    """Return the first branch of every load that the mains feed."""
    return tuple(
        f"{part.id}.{element.branches[0].id}"
        for part in sheet.parts
        if part.part_kind.is_fed
        for element in elements_of(sheet, part.id)
        if FaultMode.SHORTED_TURNS in element.effects and FaultMode.LEAK in element.effects
    )


def _row(sheet: Sheet, row: LikelyFault, failing: NDArray[np.bool_], outcomes: tuple[str, ...]) -> NDArray[np.float64]:
    told = np.zeros(len(outcomes))
    mode = row.fault.mode if row.fault else None
    part = sheet.part(row.part)
    is_fed = part is not None and part.part_kind.is_fed
    trips = {FaultMode.LEAK: LEAK_TRIPS, FaultMode.SHORT: SHORT_TRIPS}.get(mode, 0.0) if mode and is_fed else 0.0
    if failing.any():
        told[int(failing.argmax())] = 1.0
    else:
        told += _as_it_shows(sheet, row, outcomes)
    told *= 1 - trips
    told[-1] += trips
    return told


def _as_it_shows(sheet: Sheet, row: LikelyFault, outcomes: tuple[str, ...]) -> NDArray[np.float64]:
    """Return where a fault shows that no load tells."""
    part = sheet.part(row.part)
    assert part is not None  # noqa: S101 - likely faults are of parts of the sheet
    told = np.zeros(len(outcomes))
    for symptom, chance in symptom_chances(sheet, part, row.fault).items():
        step = next((step for step in _SEEN_IN.get(symptom, ()) if step in outcomes), THROUGH)
        place = TRIPS if symptom is Symptom.TRIPS else THROUGH if symptom in _UNSEEN else step
        told[outcomes.index(place)] += chance
    return told
