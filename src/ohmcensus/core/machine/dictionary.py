"""What every test of a machine type reads under every single fault, over many specimens: the fault dictionary.

Dear to compute, so it is made once a sheet; whoever calls may keep it. The same healthy specimens stand
behind every fault, so that a fault which a test does not see changes none of its readings.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.circuit import Branch
from ohmcensus.core.circuit.batch import Batch, Column, Numbers, Values, corrected
from ohmcensus.core.circuit.network import Network
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.netlist import Configuration, PartFault, effects_of, elements_of, netlist
from ohmcensus.core.machine.probe import (
    AMMETER_OHM,
    BROKEN_OHM,
    CAPACITIVE_SHARE,
    DIODE_LIMIT_V,
    INSULATION_LIMIT,
    LIVE,
    OHM_LIMIT,
    Setup,
    diode_volts,
    prepared,
)
from ohmcensus.core.machine.specimen import CONTACT_BELOW_OHM, Specimens, specimens
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import OPEN_OHM, SMALLEST_FACTOR, SMALLEST_OHM, FaultEffect, Rule
from ohmcensus.core.sheet import Sheet

SPECIMENS = 200
# Where chance starts for every sheet, so that a dictionary made again is the same.
SEED = 20260
# Where a correction subtracts numbers this many times greater than what is left, it is solved anew: of sixteen
# digits eight would go.
MOST_LOST = 1e7
# The last digit of a voltmeter.
SHOWN_VOLTS = 1e-3
VOLTS = frozenset({Function.VOLTS_AC, Function.VOLTS_DC})
Array = NDArray[np.float64]


@dataclass(frozen=True)
class Dictionary:
    """Readings of every test under every fault.

    Parameters
    ----------
    tests
        Ids of the tests that the circuit answers, "heater.pe".
    faults
        Single faults; their severity differs from specimen to specimen.
    healthy
        Readings [test, specimen] in the SI unit of each test; infinite where the meter shows over-range.
    faulty
        The same [fault, test, specimen].
    """

    tests: tuple[str, ...]
    faults: tuple[PartFault, ...]
    healthy: Array
    faulty: Array

    @cached_property
    def row_of(self) -> dict[str, int]:
        """Place of every test."""
        return {test: index for index, test in enumerate(self.tests)}


@dataclass(frozen=True, slots=True)
class _Change:
    """What one fault does to a branch: its admittance less the healthy one needs the specimen's values."""

    branch: str
    effect: FaultEffect
    amount: Array


def single_faults(sheet: Sheet) -> tuple[PartFault, ...]:
    """Return every fault that one element of one part can have, in the order of the sheet."""
    return tuple(
        PartFault(part.id, mode, element=element.name)
        for part in sheet.parts
        for element in elements_of(sheet, part.id)
        for mode in part.part_kind.fault_modes
        if mode in element.effects
    )


def dictionary(
    sheet: Sheet, faults: Sequence[PartFault] | None = None, *, count: int = SPECIMENS, seed: int = SEED
) -> Dictionary:
    """Compute the dictionary of a machine type.

    Parameters
    ----------
    sheet
        The machine's type.
    faults
        Which faults; every single one where None.
    count
        How many specimens.
    seed
        Where chance starts.
    """
    # The order of drawing is part of the answer: specimens first, then each fault's severity, from one generator. A
    # fault that is added at the end leaves every figure before it as it was.
    wanted = single_faults(sheet) if faults is None else tuple(faults)
    generator = np.random.default_rng(seed)
    machines = specimens(sheet, count, generator)
    changes = [_changes(sheet, fault, machines, generator) for fault in wanted]
    tests = [
        (part, spec) for part in sheet.parts for spec in listed_tests(sheet, part.id) if is_answered(sheet, part, spec)
    ]
    healthy = np.empty((len(tests), count))
    faulty = np.empty((len(wanted), len(tests), count))
    # Tests in the same configuration share one matrix, and a fault changes few of its branches: each matrix is solved
    # once a specimen, and every fault is a correction of that, not a solution of its own.
    groups: dict[object, list[int]] = {}
    questions: list[_Question] = []
    for part, spec in tests:
        configuration, probe = configuration_of(sheet, part, spec), probe_of(part, spec)
        question = _Question(configuration, prepared(sheet, probe, netlist(sheet, configuration)))
        groups.setdefault(question.group, []).append(len(questions))
        questions.append(question)
    for members in groups.values():
        answers = _Answers([questions[index] for index in members], machines, changes)
        healthy[members] = answers.healthy
        for row, change in enumerate(changes):
            faulty[row, members] = answers.with_fault(change)
    names = tuple(f"{part.id}.{spec.name}" for part, spec in tests)
    return Dictionary(names, wanted, healthy, faulty)


@dataclass(frozen=True, slots=True)
class _Question:
    """A test: the configuration it is made in, and the network with the instrument on it."""

    configuration: Configuration
    setup: Setup

    @property
    def function(self) -> Function:
        """What the instrument does."""
        return self.setup.probe.function

    @property
    def group(self) -> object:
        """Tests of one group are answered by one matrix."""
        probe, configuration = self.setup.probe, self.configuration
        own = (*probe.between, probe.reversed, self.function) if self.function in LIVE else ()
        kind = "live" if self.function in LIVE else "capacitance" if self.function is Function.CAPACITANCE else "dc"
        states = tuple(sorted(configuration.states.items()))
        return kind, own, probe.joined, configuration.pulled, states

    @property
    def omega(self) -> float:
        """Angular frequency in rad/s."""
        is_ac = self.function in LIVE or self.function is Function.CAPACITANCE
        return 2 * math.pi * self.setup.hertz if is_ac else 0.0

    def sense(self) -> Column:
        """Return the two nodes between which the instrument looks."""
        meter = self.setup.meters.get("meter")
        points = (meter.a, meter.b) if meter else self.setup.probe.between
        a, b = (self.setup.network.node(point) for point in points)
        return {a: 1.0, b: -1.0} if a != b else {}

    def drive(self) -> Column:
        """Return what flows in: 1 A of the instrument's own, or what the supply gives."""
        if self.function not in LIVE:
            return self.sense()
        found: dict[int, float] = {}
        for source in self.setup.network.sources:
            ampere = source.volts / source.ohm
            for point, sign in ((source.plus, 1.0), (source.minus, -1.0)):
                node = self.setup.network.node(point)
                found[node] = found.get(node, 0.0) + sign * ampere
        return found


def _changes(
    sheet: Sheet, fault: PartFault, machines: Specimens, generator: np.random.Generator
) -> tuple[_Change, ...]:
    """Return the branches that a fault changes, its severity drawn evenly on a logarithmic scale."""
    chance, found = generator.random(machines.count), []
    for branch, effect in effects_of(sheet, fault):
        drawn = effect.spread(chance)
        amount = drawn if fault.value is None else np.full(machines.count, fault.value)
        found.append(_Change(branch, effect, amount))
    return tuple(found)


def values_of(network: Network, machines: Specimens) -> Values:
    """Return the values of a network's branches in every specimen, its open contacts open."""
    ohm, henry, farad = (np.full((machines.count, len(network.branches)), fill) for fill in (1.0, 0.0, np.nan))
    for index, branch in enumerate(network.branches):
        closed = machines.ohm.get(branch.id, branch.ohm)
        is_open = branch.ohm >= OPEN_OHM and np.max(closed) < CONTACT_BELOW_OHM
        ohm[:, index] = machines.open_contact_ohm if is_open else closed
        henry[:, index] = machines.henry.get(branch.id, branch.henry)
        if branch.farad is not None:
            farad[:, index] = machines.farad.get(branch.id, branch.farad)
    return Values(ohm, henry, farad)


class _Answers:
    """Readings of tests that share a matrix, healthy and with each fault."""

    def __init__(
        self, questions: Sequence[_Question], machines: Specimens, changes: Sequence[tuple[_Change, ...]]
    ) -> None:
        network, self._omega = questions[0].setup.network, questions[0].omega
        self._questions = questions
        self._values = values_of(network, machines)
        self._senses, self._drives = [q.sense() for q in questions], [q.drive() for q in questions]
        seeds = [node for column in (*self._senses, *self._drives) for node in column]
        self._batch = Batch(network, self._values.admittance_s(self._omega), seeds)
        self._branches = {branch.id: branch for branch in network.branches}
        self._index = {branch.id: index for index, branch in enumerate(network.branches)}
        asked = sorted({self._index[c.branch] for change in changes for c in change})
        # Branches side by side share a column: which way round it stands makes no difference to a correction.
        first: dict[frozenset[int], int] = {}
        self._alike = {i: first.setdefault(frozenset(network.ends[i]), i) for i in filter(self._batch.holds, asked)}
        self._place = {index: at for at, index in enumerate(first.values())}
        crossings = [self._batch.across(index) for index in self._place]
        solved, count = self._batch.solved([*self._drives, *crossings]), len(questions)
        sense, faulty = self._batch.stacked(self._senses), list(self._place)
        self._has_junctions = any(question.function is Function.DIODE for question in questions)
        self._base = np.einsum("nk,snk->ks", sense, solved[:, :, :count])
        self._driven = self._batch.differences(faulty, solved[:, :, :count])
        self._sensed = np.swapaxes(solved[:, :, count:], 1, 2) @ sense
        self._solved = solved[:, :, count:]
        self.healthy = _shown(questions, self._base)

    def with_fault(self, change: Sequence[_Change]) -> Array:
        """Return what the tests read with some branches changed [test, specimen]."""
        # A branch that hangs together with no point of these tests changes none of their readings, exactly.
        kept = [c for c in change if self._index[c.branch] in self._alike]
        if not kept:
            return self.healthy
        indices = [self._index[c.branch] for c in kept]
        alike = [self._alike[index] for index in indices]
        at = [self._place[index] for index in alike]
        moved = np.stack([_moved(c, self._values, i, self._omega) for c, i in zip(kept, indices, strict=True)], axis=-1)
        own = self._batch.differences(alike, self._solved[:, :, at])
        after, anew = [], None
        for q, sense in enumerate(self._senses):
            terms = self._sensed[:, at, q], self._driven[:, at, q], own, moved, self._base[q]
            answer, lost = corrected(*terms, floor=SHOWN_VOLTS if self._questions[q].function in VOLTS else 1e-12)
            # Where what is left is a small rest of two great numbers, its digits are rounding: the matrix is solved
            # anew, for all drives at once, since the next test will most likely need it too.
            if lost > MOST_LOST:
                anew = self._batch.solved_with(indices, moved, self._drives) if anew is None else anew
                answer = (self._batch.stacked([sense]).T @ anew[:, :, q : q + 1])[:, 0, 0]
            after.append(answer)
        changed = {c.branch: c.effect.applied(self._branches[c.branch], None) for c in kept if self._has_junctions}
        return _shown(self._questions, np.stack(after), changed)


def _moved(change: _Change, values: Values, index: int, omega: float) -> Numbers:
    """Return the admittance that a fault gives a branch, less the one it had [specimen]."""
    ohm, henry, farad = (rows[:, index : index + 1] for rows in (values.ohm, values.henry, values.farad))
    amount = change.amount[:, None]
    if change.effect.rule is Rule.FARAD_TIMES:
        after = Values(ohm, henry, farad * np.maximum(amount, SMALLEST_FACTOR))
    else:
        after = Values(np.maximum(change.effect.ohm(ohm, amount), SMALLEST_OHM), henry, farad)
    old = Values(ohm, henry, farad)
    return np.asarray((after.admittance_s(omega) - old.admittance_s(omega))[:, 0])


def _shown(questions: Sequence[_Question], answers: Numbers, changed: Mapping[str, Branch] | None = None) -> Array:
    """Return what the instruments show [test, specimen]; infinite beyond their limits."""
    shown = np.empty(answers.shape)
    for row, question in enumerate(questions):
        shown[row] = _reading(question, answers[row], changed)
    return shown


def _reading(question: _Question, answer: Numbers, changed: Mapping[str, Branch] | None) -> Array:
    function, (p, q) = question.function, question.setup.probe.between
    if not question.sense():
        return np.full(answer.shape, np.inf if question.setup.network.node(p) < 0 else 0)
    if function is Function.CAPACITANCE:
        is_capacitive = -answer.imag > CAPACITIVE_SHARE * np.abs(answer)
        return np.where(is_capacitive, -1 / (question.omega * np.where(is_capacitive, answer.imag, -1.0)), np.inf)
    if function is Function.DIODE:
        drop = question.setup.network.forward_volts(p, q, below_ohm=BROKEN_OHM, changed=changed)
        volts = np.array([diode_volts(ohm, drop) for ohm in np.real(answer).tolist()])
        return np.where(volts <= DIODE_LIMIT_V, volts, np.inf)
    if function in LIVE:
        divisor = AMMETER_OHM if question.setup.meters else 1.0
        return np.asarray(np.abs(answer) / divisor, dtype=np.float64)
    limit = INSULATION_LIMIT if function is Function.INSULATION else OHM_LIMIT
    return np.where(np.real(answer) <= limit, np.real(answer), np.inf)
