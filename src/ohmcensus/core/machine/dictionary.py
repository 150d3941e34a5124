"""What every test of a machine type reads under every single fault, over many specimens: the fault dictionary.

Dear to compute, so it is made once a sheet; whoever calls may keep it. The same healthy specimens stand
behind every fault, so that a fault which a test does not see changes none of its readings.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
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
    VOLTMETER_OHM,
    Setup,
    diode_volts,
    prepared,
)
from ohmcensus.core.machine.specimen import CONTACT_BELOW_OHM, Specimens, specimens
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.element import OPEN_OHM, SMALLEST_FACTOR, SMALLEST_OHM, FaultEffect, Rule
from ohmcensus.core.parts.kind import TestSpec
from ohmcensus.core.sheet import Part, Sheet

SPECIMENS = 200
# Where chance starts for every sheet, so that a dictionary made again is the same.
SEED = 20260
# Where a correction subtracts numbers this many times greater than what is left, it is solved anew: of sixteen
# digits eight would go.
MOST_LOST = 1e7
# The last digit of a voltmeter.
SHOWN_VOLTS = 1e-3
# Less behind a voltmeter's points moves none of its digits.
SHOWN_OHM = 1e4
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


@dataclass(frozen=True, slots=True, eq=False)
class _Change:
    """What one fault does to a branch: its admittance less the healthy one needs the specimen's values."""

    branch: str
    effect: FaultEffect
    amount: Array
    # By the nominal resistance, which opens a contact, and the frequency: asked anew for every matrix.
    moved: dict[tuple[float, float], Numbers] = field(default_factory=dict)


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
        question = _question(sheet, part, spec)
        groups.setdefault(question.group, []).append(len(questions))
        questions.append(question)
    for members in groups.values():
        answers = _Answers([questions[index] for index in members], machines, changes)
        healthy[members] = answers.healthy
        faulty[:, members] = answers.with_faults(changes)
    names = tuple(f"{part.id}.{spec.name}" for part, spec in tests)
    return Dictionary(names, wanted, healthy, faulty)


@dataclass(frozen=True, slots=True)
class _Question:
    """A test: the configuration it is made in, and the network with the instrument on it."""

    configuration: Configuration
    setup: Setup
    # The network is without the voltmeter: what it reads follows from the open voltage and the resistance behind it.
    is_open: bool = False

    @property
    def function(self) -> Function:
        """What the instrument does."""
        return self.setup.probe.function

    @property
    def group(self) -> object:
        """Tests of one group are answered by one matrix."""
        probe, configuration = self.setup.probe, self.configuration
        own: tuple[object, ...] = (probe.reversed, self.function) if self.function in LIVE else ()
        own += () if self.is_open or self.function not in LIVE else probe.between
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

    def forward_volts(self, changed: Mapping[str, Branch] | None = None) -> float:
        """Return what the junctions between the two points drop, some of them broken or bridged."""
        return self.setup.network.forward_volts(*self.setup.probe.between, below_ohm=BROKEN_OHM, changed=changed)

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


def _question(sheet: Sheet, part: Part, spec: TestSpec) -> _Question:
    configuration, probe = configuration_of(sheet, part, spec), probe_of(part, spec)
    circuit = netlist(sheet, configuration)
    if probe.function is Function.VOLTS_AC:
        # Without the meter one matrix answers all voltages of a configuration.
        unloaded = prepared(sheet, probe, circuit, is_loaded=False)
        if all(unloaded.network.node(point) >= 0 for point in probe.between):
            return _Question(configuration, unloaded, is_open=True)
    return _Question(configuration, prepared(sheet, probe, circuit))


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
        # A voltmeter loads what it reads: of its points the resistance is asked too, by 1 A between them.
        open_ones = [at for at, question in enumerate(questions) if question.is_open]
        self._loaded = {at: len(questions) + place for place, at in enumerate(open_ones)}
        across = [questions[at].sense() for at in open_ones]
        self._senses, self._drives = [q.sense() for q in questions] + across, [q.drive() for q in questions] + across
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
        solved, count = self._batch.solved([*self._drives, *crossings]), len(self._drives)
        sense, faulty = self._batch.stacked(self._senses), list(self._place)
        self._base = np.einsum("nq,snq->sq", sense, solved[:, :, :count])
        self._sensed = np.swapaxes(solved[:, :, count:], 1, 2) @ sense
        self._crossed, self._ends = solved[:, :, count:], self._batch.ends(faulty)
        self._driven = solved[:, self._ends[0], :count] - solved[:, self._ends[1], :count]
        self._floor = np.array(
            [SHOWN_VOLTS if q.function in VOLTS else 1e-12 for q in questions] + [SHOWN_OHM] * len(across)
        )
        self.healthy = self._shown(self._base[:, None], [()])[0]

    def with_faults(self, changes: Sequence[Sequence[_Change]]) -> Array:
        """Return what the tests read with some branches changed [fault, test, specimen]."""
        # A branch that hangs together with no point of these tests changes none of their readings, exactly.
        kept = [[c for c in change if self._index[c.branch] in self._alike] for change in changes]
        after = np.repeat(self._base[:, None], len(kept), axis=1)
        for size in {len(change) for change in kept} - {0}:
            rows = [row for row, change in enumerate(kept) if len(change) == size]
            after[:, rows] = self._corrected([kept[row] for row in rows])
        return self._shown(after, kept)

    def _shown(self, answers: Numbers, changes: Sequence[Sequence[_Change]]) -> Array:
        """Return what the instruments show [fault, test, specimen] of answers [specimen, fault, column]."""
        numbers = np.moveaxis(answers, 0, -1).copy()
        for at, load in self._loaded.items():
            numbers[:, at] /= 1 + numbers[:, load] / VOLTMETER_OHM
        return np.stack([self._read(q, changes, numbers[:, at]) for at, q in enumerate(self._questions)], axis=1)

    def _read(self, question: _Question, changes: Sequence[Sequence[_Change]], numbers: Numbers) -> Array:
        """Return what one instrument shows [fault, specimen]; a fault may break a junction or bridge it."""
        if question.function is not Function.DIODE or not question.sense():
            return _reading(question, numbers)
        whole, drops = question.forward_volts(), []
        for row in changes:
            junctions = [(self._branches[c.branch], c.effect) for c in row]
            changed = {b.id: effect.applied(b, None) for b, effect in junctions if b.forward_volts is not None}
            drops.append(question.forward_volts(changed) if changed else whole)
        return _conducted(numbers, np.array(drops)[:, None])

    def _corrected(self, changes: Sequence[Sequence[_Change]]) -> Numbers:
        """Return the answers under faults that change equally many branches [specimen, fault, test]."""
        indices = [[self._index[c.branch] for c in change] for change in changes]
        at = np.array([[self._place[self._alike[index]] for index in row] for row in indices])
        moved = [
            np.stack([self._moved(c, index) for c, index in zip(change, row, strict=True)], axis=-1)
            for change, row in zip(changes, indices, strict=True)
        ]
        crossing, (a, b) = at[:, None, :], self._ends[:, at[:, :, None]]
        own = self._crossed[:, a, crossing] - self._crossed[:, b, crossing]
        terms = self._sensed[:, at], self._driven[:, at], own, np.stack(moved, axis=1), self._base
        after, lost = corrected(*terms, floor=self._floor)
        # Where what is left is a small rest of two great numbers, its digits are rounding: the matrix is solved anew.
        is_lost = lost > MOST_LOST
        for fault in np.flatnonzero(is_lost.any(axis=(0, 2))):
            chosen, tests = (np.flatnonzero(is_lost[:, fault].any(axis=axis)) for axis in (1, 0))
            drives, senses = ([columns[q] for q in tests] for columns in (self._drives, self._senses))
            anew = self._batch.solved_with(indices[fault], moved[fault][chosen], drives, chosen)
            after[np.ix_(chosen, [fault], tests)] = np.einsum("nq,snq->sq", self._batch.stacked(senses), anew)[:, None]
        return after

    def _moved(self, change: _Change, index: int) -> Numbers:
        """Return the admittance that a fault gives a branch, less the one it had [specimen]."""
        key = self._branches[change.branch].ohm, self._omega
        if key not in change.moved:
            change.moved[key] = _moved(change, self._values, index, self._omega)
        return change.moved[key]


def _moved(change: _Change, values: Values, index: int, omega: float) -> Numbers:
    ohm, henry, farad = (rows[:, index : index + 1] for rows in (values.ohm, values.henry, values.farad))
    amount = change.amount[:, None]
    if change.effect.rule is Rule.FARAD_TIMES:
        after = Values(ohm, henry, farad * np.maximum(amount, SMALLEST_FACTOR))
    else:
        after = Values(np.maximum(change.effect.ohm(ohm, amount), SMALLEST_OHM), henry, farad)
    old = Values(ohm, henry, farad)
    return np.asarray((after.admittance_s(omega) - old.admittance_s(omega))[:, 0])


def _conducted(ohm: Numbers, forward_volts: Array) -> Array:
    """Return what a diode test shows."""
    volts = diode_volts(np.real(ohm), forward_volts)
    return np.where(volts <= DIODE_LIMIT_V, volts, np.inf)


def _reading(question: _Question, answer: Numbers) -> Array:
    """Return what the instrument shows [..., specimen]; infinite beyond its limit."""
    function = question.function
    if not question.sense():
        is_nowhere = question.setup.network.node(question.setup.probe.between[0]) < 0
        return np.full(answer.shape, np.inf if is_nowhere else 0)
    if function is Function.CAPACITANCE:
        is_capacitive = -answer.imag > CAPACITIVE_SHARE * np.abs(answer)
        return np.where(is_capacitive, -1 / (question.omega * np.where(is_capacitive, answer.imag, -1.0)), np.inf)
    if function is Function.DIODE:
        return _conducted(answer, np.array(question.forward_volts()))
    if function in LIVE:
        divisor = AMMETER_OHM if question.setup.meters else 1.0
        return np.asarray(np.abs(answer) / divisor, dtype=np.float64)
    limit = INSULATION_LIMIT if function is Function.INSULATION else OHM_LIMIT
    return np.where(np.real(answer) <= limit, np.real(answer), np.inf)
