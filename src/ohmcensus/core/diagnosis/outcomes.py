"""How likely every outcome of every test is under every hypothesis.

Readings are kept on a logarithmic scale in bins, fine around what a sound part reads, with one bin for over-range.
The share of each bin is a kernel density over the specimens of the fault dictionary, test by test; multiplying along
the specimens jointly would degenerate (two hundred points in fifty dimensions) and be far too sure.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.diagnosis.densities import edges_of, smoothed
from ohmcensus.core.diagnosis.hypothesis import Hypothesis, hypotheses
from ohmcensus.core.diagnosis.symptoms import chances_told
from ohmcensus.core.machine.asked import RUN, look_id
from ohmcensus.core.machine.coverage import configuration_of, is_answered, probe_of
from ohmcensus.core.machine.dictionary import Dictionary
from ohmcensus.core.machine.expected import expected
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.likely import likely_faults
from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.machine.probe import LIVE, predict
from ohmcensus.core.machine.run_through import run_through
from ohmcensus.core.machine.separable import LEAST_VARIATION
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck, Role, TestSpec
from ohmcensus.core.physics.temperature import REFERENCE_CELSIUS
from ohmcensus.core.quantity import Interval
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.symptom import Symptom

Array = NDArray[np.float64]
# Nominals that are not from service data are this uncertain, as a standard deviation of the logarithm.
NOMINAL_DEVIATION = 0.25
# Where a reading counts as nothing, by function, in its SI unit: under it a meter and its probes tell no difference.
LEAST = {
    Function.OHM: 0.3,
    Function.CONTINUITY: 0.15,
    Function.INSULATION: 1e3,
    Function.CAPACITANCE: 1e-11,
    Function.LEAKAGE: 1e-6,
    Function.AMPERE: 1e-3,
    Function.VOLTS_AC: 0.1,
    Function.VOLTS_DC: 0.1,
    Function.DIODE: 1e-3,
}
LEAST_OF_ALL = 1e-12
# Where the scale of a function ends, SI: the bins reach so far even where no fault that is listed reads there.
MOST = {
    Function.OHM: 6e7,
    Function.CONTINUITY: 2e3,
    Function.INSULATION: 2e9,
    Function.CAPACITANCE: 6e-3,
    Function.LEAKAGE: 0.1,
    Function.AMPERE: 100.0,
    Function.VOLTS_AC: 400.0,
    Function.DIODE: 2.0,
}
# Another variant of a part than the sheet says is off by so much at most (ours), where a value or its current is read.
VARIANT_FACTOR = 1.5
OF_VARIANTS = frozenset({Function.OHM, Function.CAPACITANCE, Function.AMPERE})
# Tests that no circuit answers read inside or not: what their kind declares, with slips (ours).
DECLARED_SEEN, DECLARED_FALSE = 0.92, 0.03
# A bad joint at the outlet, evenly over the logarithm; what a machine takes while volts are read on it (ours).
JOINT_OHM, IDLE_AMPERE = (0.3, 2e6), 0.1
# Where a part has several outputs, a fault takes some of them: a good one says little of the others, a bad one all.
ONE_OF_SEVERAL_SEEN, ONE_OF_SEVERAL_FALSE = 0.45, 0.01
# Eye and hand find nearly all of what is not electrical, and few electrical faults (ours).
EYE_MECHANICAL, EYE_ELECTRICAL, EYE_FALSE = 0.95, 0.25, 0.03


@dataclass(frozen=True)
class Outcomes:
    """What one test may read.

    Parameters
    ----------
    test
        Id of the test or check.
    edges
        Logarithms of the SI values between which the bins lie [bins + 1]; empty where the outcomes are *inside*
        and *not inside*.
    chance
        Share of each bin [hypothesis, outcome]; the last outcome is over-range, or *not inside*.
    function
        What the instrument does, None for a check by eye.
    own
        Whether a hypothesis means the test's own part, 1 or 0 [hypothesis]; None where no value is read.
    window
        What a good part reads, SI; None where no value is read.
    of
        The part whose value is read, that which a lead or an output feeds included; empty where no value is read.
    """

    test: str
    edges: Array
    chance: Array
    function: Function | None
    own: Array | None = None
    window: Interval | None = None
    of: str = ""

    def is_near(self, interval: Interval) -> bool:
        """Tell whether a reading is outside its window, yet within what another variant of the part would read."""
        lo, hi = (self.window.finite_lo, self.window.finite_hi) if self.window else (None, None)
        if not lo or not hi or self.function not in OF_VARIANTS or not self.is_outside(interval):
            return False
        return lo / VARIANT_FACTOR <= interval.hi and interval.lo <= hi * VARIANT_FACTOR

    def is_outside(self, interval: Interval) -> bool:
        """Tell whether a reading is surely not that of a good part."""
        return self.window is not None and (interval.lo > self.window.hi or interval.hi < self.window.lo)

    @cached_property
    def _total(self) -> Array:
        return np.concatenate([np.zeros((len(self.chance), 1)), np.cumsum(self.chance[:, :-1], axis=1)], axis=1)

    @property
    def is_measured(self) -> bool:
        """Whether the circuit answers it with a value."""
        return self.edges.size > 0

    @cached_property
    def _edges(self) -> list[float]:
        return [float(edge) for edge in self.edges]

    @cached_property
    def _masses(self) -> dict[Interval, tuple[Array, float]]:
        return {}

    def mass(self, interval: Interval) -> tuple[Array, float]:
        """Return the share of readings in an interval of SI values [hypothesis], and its share of an even spread."""
        found = self._masses.get(interval)
        if found is None:
            if len(self._masses) >= MOST_MASSES:
                self._masses.clear()
            found = self._masses[interval] = self._mass(interval)
        return found

    @cached_property
    def like_sound(self) -> Array:
        """How much of a hypothesis reads as a sound machine does [hypothesis]: 1 where the test is blind to it."""
        return np.asarray(np.minimum(self.chance, self.chance[-1]).sum(axis=1))

    @cached_property
    def even(self) -> Array:
        """Share of each outcome of an even spread over the scale, and of over-range."""
        width = np.diff(self.edges)
        return np.append(_FINITE_SHARE * width / width.sum(), 1 - _FINITE_SHARE)

    def place(self, log: float) -> int:
        """Return the bin in which the logarithm of a value lies."""
        return min(max(bisect_left(self._edges, log) - 1, 0), len(self._edges) - 2)

    def _mass(self, interval: Interval) -> tuple[Array, float]:
        least = LEAST.get(self.function, LEAST_OF_ALL) if self.function else LEAST_OF_ALL
        lo = math.log(max(interval.lo, least)) if interval.lo > least else -math.inf
        hi = math.log(max(interval.hi, least)) if math.isfinite(interval.hi) else math.inf
        if hi - lo < _NARROW:
            lo, hi = lo - _NARROW / 2, hi + _NARROW / 2
        first, last = float(self.edges[0]), float(self.edges[-1])
        a, b = min(max(lo, first), last), min(max(hi, first), last)
        share = self._below(b) - self._below(a)
        even = _FINITE_SHARE * (b - a) / (last - first)
        if math.isinf(hi):
            share, even = share + self.chance[:, -1], even + 1 - _FINITE_SHARE
        return share, even

    def _below(self, edge: float) -> Array:
        at = self.place(edge)
        part = (edge - self._edges[at]) / (self._edges[at + 1] - self._edges[at])
        return np.asarray(self._total[:, at] * (1 - part) + self._total[:, at + 1] * part)


# A test that reads so little as it would on a sound machine is moved by a fault.
DISTURBED = 0.5
_NARROW = 0.004
# Intervals whose masses are kept by a test; readings repeat themselves in every answer.
MOST_MASSES = 64
_FINITE_SHARE = 0.75


@dataclass(frozen=True)
class OutcomeTable:
    """Hypotheses of a machine type, and the outcomes of all its tests and checks under them."""

    sheet: Sheet
    hypotheses: tuple[Hypothesis, ...]
    tests: Mapping[str, Outcomes]

    @cached_property
    def groups(self) -> tuple[tuple[str, ...], ...]:
        """Repairs: parts that are repaired together, in the order of the sheet; nothing found last."""
        return tuple(dict.fromkeys(row.parts for row in self.hypotheses))

    @cached_property
    def in_group(self) -> Array:
        """Whether a hypothesis means a repair [group, hypothesis]."""
        rows = [[float(row.parts == group) for row in self.hypotheses] for group in self.groups]
        return np.array(rows)

    @cached_property
    def parts(self) -> tuple[str, ...]:
        """Parts that may be at fault, in the order of the sheet."""
        return tuple(dict.fromkeys(part for row in self.hypotheses for part in row.parts))

    @cached_property
    def involves(self) -> Array:
        """Whether a part is involved in a hypothesis [part, hypothesis]."""
        return np.array([[float(part in row.parts) for row in self.hypotheses] for part in self.parts])

    @cached_property
    def drawing(self) -> Mapping[str, frozenset[str]]:
        """Loads without which a current is another one than that of a sound machine, by test."""
        loads = {part.id for part in self.sheet.with_role(Role.LOAD, Role.INTERLOCK)}
        opened = [
            (at, row.parts[0])
            for at, row in enumerate(self.hypotheses)
            if len(row.parts) == 1 and row.parts[0] in loads and row.modes == (FaultMode.OPEN,)
        ]
        found = {}
        for name, test in self.tests.items():
            if test.function is Function.AMPERE:
                differs = np.abs(test.chance - test.chance[-1]).sum(axis=1) / 2
                found[name] = frozenset(part for at, part in opened if differs[at] >= LEAST_VARIATION)
        return found

    @cached_property
    def moved_by(self) -> Mapping[str, frozenset[str]]:
        """Parts of which some fault moves a test, by test: once another piece sits there, it says nothing any more."""
        single = [(at, row.parts[0]) for at, row in enumerate(self.hypotheses) if len(row.parts) == 1]
        return {
            name: frozenset(part for at, part in single if test.like_sound[at] < DISTURBED)
            for name, test in self.tests.items()
        }

    @cached_property
    def told(self) -> Mapping[Symptom, Array]:
        """How likely each symptom is the one that is told [hypothesis]."""
        return chances_told(self.sheet, self.hypotheses)

    @cached_property
    def prior(self) -> Array:
        """Chance of every hypothesis before anything is known."""
        weights = np.array([row.weight for row in self.hypotheses])
        return np.asarray(weights / weights.sum())


def outcome_table(sheet: Sheet, found: Dictionary) -> OutcomeTable:
    """Return the outcomes of every test and check of a sheet.

    Parameters
    ----------
    sheet
        The machine's type.
    found
        Its fault dictionary.
    """
    supposed = hypotheses(sheet)
    outlets = {part.id for part in sheet.with_role(Role.OUTLET)}
    rows: dict[str, Outcomes] = {}
    for part in sheet.parts:
        own = listed_tests(sheet, part.id)
        unanswered = [spec for spec in own if not is_answered(sheet, part, spec)]
        for spec in own:
            name = f"{part.id}.{spec.name}"
            if is_answered(sheet, part, spec):
                rows[name] = _measured(sheet, part, spec, found, supposed, outlets)
            else:
                rows[name] = _declared(name, part, spec, supposed, is_one_of_several=len(unanswered) > 1)
        for check in part.part_kind.checks:
            rows[look_id(part, check)] = _looked(part, check, supposed)
    rows[RUN] = _watched(sheet, supposed)
    return OutcomeTable(sheet, supposed, rows)


def _deviation(spec: TestSpec, window: Window) -> float:
    """Return how uncertain the nominal is: that of service data is what it is."""
    is_value = spec.function in {Function.OHM, Function.CAPACITANCE}
    return NOMINAL_DEVIATION if is_value and window.source is Source.COMMON else 0.0


def _measured(
    sheet: Sheet,
    part: Part,
    spec: TestSpec,
    found: Dictionary,
    supposed: Sequence[Hypothesis],
    outlets: Set[str],
) -> Outcomes:
    """Return the outcomes of a test that the circuit answers."""
    name = f"{part.id}.{spec.name}"
    window = expected(sheet, part, spec, REFERENCE_CELSIUS)
    at = found.row_of[name]
    healthy = found.healthy[None, at]
    readings = np.concatenate([found.faulty[:, at], _behind_a_joint(sheet, part, spec, healthy), healthy])
    floor = LEAST.get(spec.function, LEAST_OF_ALL)
    logs = np.where(np.isinf(readings), np.nan, np.log(np.maximum(np.where(np.isinf(readings), 1.0, readings), floor)))
    edges = edges_of(logs, math.log(floor), math.log(MOST[spec.function]))
    single = smoothed(logs, edges, _deviation(spec, window))
    place = {fault: row for row, fault in enumerate(found.faults)}
    rows = [_row(hypothesis, place, single) for hypothesis in supposed]
    if spec.function in LIVE:
        # Behind a dead outlet nothing is live: every such reading is next to nothing.
        nothing = np.zeros(edges.size)
        nothing[max(0, int(np.searchsorted(edges, math.log(floor))) - 1)] = 1.0
        behind = {FaultMode.OPEN: nothing, FaultMode.BAD_JOINT: single[-2]}
        modes = [next((each.mode for each in row.faults if each.part in outlets), None) for row in supposed]
        rows = [behind.get(mode, own) if mode else own for mode, own in zip(modes, rows, strict=True)]
    asked = _part_read(sheet, part, spec)
    own = np.array([float(asked in row.parts) for row in supposed])
    return Outcomes(name, edges, np.stack(rows), spec.function, own, window.interval, asked)


def _part_read(sheet: Sheet, part: Part, spec: TestSpec) -> str:
    """Return the part whose value a test reads, empty where it is the whole machine's."""
    if spec.load_of:
        return fed_part(sheet, part.id, spec.load_of) or ""
    if spec.function is Function.INSULATION:
        found = predict(sheet, probe_of(part, spec), configuration_of(sheet, part, spec))
        return part.id if set(found.reaches) <= {part.id} else ""
    # A current is what the machine takes, or what it leaks.
    return "" if spec.function in {Function.AMPERE, Function.LEAKAGE} else part.id


def _behind_a_joint(sheet: Sheet, part: Part, spec: TestSpec, healthy: Array) -> Array:
    """Return what specimens read behind a bad joint at the outlet, which is no part of their circuit [1, specimen].

    The joint lies before the load: a current falls by what it adds to the load, volts by what flows meanwhile.
    """
    ohm = np.geomspace(*JOINT_OHM, healthy.shape[1])[None, :]
    if spec.function not in LIVE:
        return healthy
    if spec.function is Function.AMPERE:
        ampere = healthy
    else:
        ampere = np.full_like(healthy, 0.0 if part.traits.role is Role.OUTLET else IDLE_AMPERE)
    return np.asarray(healthy / (1 + ohm * ampere / sheet.volts))


def _row(hypothesis: Hypothesis, place: Mapping[PartFault, int], single: Array) -> Array:
    """Return the outcomes under a hypothesis; of a double, those of the fault that the test sees better."""
    sound = single[-1]
    own = [single[place[fault]] for fault in hypothesis.faults if fault in place]
    return max(own, key=lambda row: float(np.abs(row - sound).sum()), default=sound)


def _declared(
    name: str, part: Part, spec: TestSpec, supposed: Sequence[Hypothesis], *, is_one_of_several: bool
) -> Outcomes:
    hit, false = (ONE_OF_SEVERAL_SEEN, ONE_OF_SEVERAL_FALSE) if is_one_of_several else (DECLARED_SEEN, DECLARED_FALSE)
    seen = [any(fault.part == part.id and fault.mode not in spec.blind_to for fault in row.faults) for row in supposed]
    bad = np.where(seen, hit, false)
    return Outcomes(name, np.empty(0), np.stack([1 - bad, bad], axis=1), spec.function)


def _is_seen(part: Part, check: PartCheck, row: Hypothesis) -> float:
    """Return the chance that a look is bad under a hypothesis: it is the very fault, its trace, or false."""
    if part.id not in row.parts:
        return EYE_FALSE
    is_the_fault = row.look == check.id if part.part_kind.fault_modes else True
    if is_the_fault:
        return EYE_MECHANICAL
    return EYE_FALSE if row.look or check.mechanical > 0 else EYE_ELECTRICAL


def _looked(part: Part, check: PartCheck, supposed: Sequence[Hypothesis]) -> Outcomes:
    bad = np.array([_is_seen(part, check, row) for row in supposed])
    return Outcomes(look_id(part, check), np.empty(0), np.stack([1 - bad, bad], axis=1), None)


def _watched(sheet: Sheet, supposed: Sequence[Hypothesis]) -> Outcomes:
    """Return the outcomes of a watched run; of a double, those of its first fault."""
    run = run_through(sheet)
    place = {(row.part, row.fault): index for index, row in enumerate(likely_faults(sheet))}
    first = [next((fault for fault in row.faults if fault.part == row.parts[0]), None) for row in supposed]
    rows = [
        run.chance[place[row.parts[0], fault] if row.parts else -1] for row, fault in zip(supposed, first, strict=True)
    ]
    return Outcomes(RUN, np.empty(0), np.stack(rows), None)
