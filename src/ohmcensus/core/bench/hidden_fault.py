"""Jobs with a hidden fault: a specimen of the machine, one fault in it, what the customer tells, what a meter shows.

Nothing here knows of any diagnosis: readings come from the circuit with the fault put in, a meter of usual accuracy
and, where wanted, slips of the hand and a sheet whose figures are off.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.machine.dictionary import Dictionary, dictionary, single_faults
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.likely import LikelyFault, likely_faults, symptom_chances
from ohmcensus.core.machine.netlist import PartFault
from ohmcensus.core.machine.run_through import run_through
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.machine.stamped import valued_tests
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck, TestSpec
from ohmcensus.core.quantity import Interval
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.symptom import Symptom

# What customers tell that has nothing to do with the fault.
STRAY_SHARE = 0.1
# Jobs on which the machine is sound.
SOUND_SHARE = 0.03
# A usual meter: share of the reading, and the last digits by function; where it ends, in SI.
PERCENT = 0.01
DIGITS = {Function.OHM: 0.1, Function.CONTINUITY: 0.02, Function.INSULATION: 2e4, Function.CAPACITANCE: 1e-8}
DIGITS |= {Function.VOLTS_AC: 0.2, Function.VOLTS_DC: 0.2, Function.LEAKAGE: 1e-5, Function.AMPERE: 1e-2}
ENDS = {Function.OHM: 4e7, Function.INSULATION: 299e6}
# How often a test that no circuit answers shows its part's fault, how often eye and hand do, and both falsely.
SHOWS, SEES_MECHANICAL, SEES_ELECTRICAL, FALSELY, SEES_FALSELY = 0.92, 0.95, 0.25, 0.03, 0.03
# Sheets are off in what is a value; a contact reads what a contact reads.
_VALUES = frozenset({Function.OHM, Function.CAPACITANCE})
_CONTACT_OHM = 1.0


@dataclass(frozen=True)
class HiddenJobs:
    """Simulated jobs.

    Parameters
    ----------
    sheet
        The machine's type.
    faults
        What is wrong, by job; None where the machine is sound.
    symptoms
        What the customer tells, by job.
    """

    sheet: Sheet
    faults: tuple[LikelyFault | None, ...]
    symptoms: tuple[Symptom, ...]
    _readings: Dictionary = field(repr=False)
    _off: Mapping[str, NDArray[np.float64]] = field(repr=False)
    _part_of: Mapping[str, str] = field(repr=False)
    _slips: float
    _seed: int

    def reading(self, job: int, test: str, *, attempt: int = 0) -> Interval:
        """Return what a meter shows on a job, with its limit of error, SI; a repeat slips by its own chance."""
        spec = self._spec(test)
        at = self._readings.row_of[test]
        fault = self.faults[job]
        wrong = fault.fault if fault else None
        place = self._readings.faults.index(wrong) if wrong in self._readings.faults else None
        true = float(self._readings.healthy[at, job] if place is None else self._readings.faulty[place, at, job])
        true *= self.off(job, test, true)
        return _shown(true, spec.function, self._chance(job, test, attempt), self._slips)

    def part_of(self, test: str) -> str:
        """Return the part on whose figures a reading hangs, empty for none."""
        return self._part_of.get(test, "")

    def off(self, job: int, test: str, true: float) -> float:
        """Return the factor by which a reading is off what the sheet's figures make of it: its part is a variant."""
        part, function = self.part_of(test), self._spec(test).function
        factor = float(self._off[part][job]) if part in self._off else 1.0
        if function is Function.AMPERE:
            return 1 / factor
        is_value = function is Function.CAPACITANCE or (function in _VALUES and _CONTACT_OHM < true < math.inf)
        return factor if is_value else 1.0

    def is_visible(self, job: int) -> bool:
        """Tell whether some listed test shows the fault of a job, as severe as it is, on a machine as it is.

        A measured test does where its reading, with the meter's whole error, lies outside all that sound specimens
        read; one that no circuit answers where its kind says so; a look where nothing is electrical.
        """
        fault = self.faults[job]
        if fault is None:
            return False
        part = self.sheet.part(fault.part)
        assert part is not None  # noqa: S101 - faults are of parts of the sheet
        if fault.fault is None:
            return bool(part.part_kind.checks)
        declared = (
            row for row in listed_tests(self.sheet, part.id) if f"{part.id}.{row.name}" not in self._readings.row_of
        )
        return any(fault.fault.mode not in row.blind_to for row in declared) or self._is_read(job, fault.fault)

    def _is_read(self, job: int, fault: PartFault) -> bool:
        if fault not in self._readings.faults:
            return False
        place = self._readings.faults.index(fault)
        for at, test in enumerate(self._readings.tests):
            function = self._spec(test).function
            end, digit = ENDS.get(function, math.inf), DIGITS.get(function, 1e-3)
            sound = np.minimum(self._readings.healthy[at], end)
            true = min(float(self._readings.faulty[place, at, job]), end)
            error = 0.0 if true == end else PERCENT * true + digit
            if true - error > sound.max() or true + error < sound.min():
                return True
        return False

    def run(self, job: int) -> int:
        """Return what a watched run through the programme comes to on a job: the place of its outcome."""
        chances = run_through(self.sheet)
        fault = self.faults[job]
        row = -1 if fault is None else likely_faults(self.sheet).index(fault)
        return int(self._chance(job, "run", 0).choice(len(chances.outcomes), p=chances.chance[row]))

    def is_bad(self, job: int, part: Part, asked: TestSpec | PartCheck, *, attempt: int = 0) -> bool:
        """Tell whether a test that no circuit answers, or a check by eye and hand, is bad on a job."""
        fault = self.faults[job]
        is_own = fault is not None and fault.part == part.id
        if isinstance(asked, PartCheck):
            is_seen = fault is not None and (fault.look == asked.id or not part.part_kind.fault_modes)
            shows = SEES_MECHANICAL if is_seen else SEES_FALSELY if asked.mechanical > 0 else SEES_ELECTRICAL
            name, falsely = asked.id, SEES_FALSELY
        else:
            mode = fault.fault.mode if fault and fault.fault else None
            is_own = is_own and mode is not None and mode not in asked.blind_to
            shows, name, falsely = SHOWS, asked.name, FALSELY
        chance = self._chance(job, f"{part.id}.{name}", attempt)
        is_bad = bool(chance.random() < (shows if is_own else falsely))
        return not is_bad if chance.random() < self._slips else is_bad

    def _spec(self, test: str) -> TestSpec:
        part_id, _, name = test.partition(".")
        part = self.sheet.part(part_id)
        assert part is not None  # noqa: S101 - callers name tests of the sheet
        return next(spec for spec in listed_tests(self.sheet, part_id) if spec.name == name)

    def _chance(self, job: int, name: str, attempt: int) -> np.random.Generator:
        return np.random.default_rng([self._seed, job, attempt, *name.encode()])


def hidden_jobs(sheet: Sheet, count: int, seed: int, *, slips: float = 0.0, nominals_off: float = 0.0) -> HiddenJobs:
    """Return simulated jobs.

    Parameters
    ----------
    sheet
        The machine's type.
    count
        How many jobs.
    seed
        Where chance starts.
    slips
        Share of readings that are slips of the hand.
    nominals_off
        By how much the figures of sheet and plate are off, part by part, as a share (one standard deviation).
    """
    chance = np.random.default_rng([seed, 77])
    known = likely_faults(sheet)
    weights = np.array([row.weight for row in known])
    drawn = chance.choice(len(known), size=count, p=weights / weights.sum())
    faults = tuple(None if chance.random() < SOUND_SHARE else known[i] for i in drawn.tolist())
    electrical = tuple(dict.fromkeys(row.fault for row in faults if row and row.fault and _is_in_circuit(sheet, row)))
    readings = dictionary(sheet, electrical, count=count, seed=seed + 1_000_003)
    part_of = _parts_of_readings(sheet) if nominals_off else {}
    off = {part: np.exp(nominals_off * chance.standard_normal(count)) for part in sorted(set(part_of.values()))}
    symptoms = tuple(_told(sheet, row, chance) for row in faults)
    return HiddenJobs(sheet, faults, symptoms, readings, off, part_of, slips, seed)


def _is_in_circuit(sheet: Sheet, row: LikelyFault) -> bool:
    return bool(row.fault and row.fault.element) and sheet.part(row.part) is not None


def _parts_of_readings(sheet: Sheet) -> dict[str, str]:
    """Return the part on whose figures a reading hangs, by test: whose value it is, or what draws the current."""
    found = {}
    valued = {part.id for part in sheet.parts if valued_tests(sheet, part)}
    for part in sheet.parts:
        for spec in listed_tests(sheet, part.id):
            of = fed_part(sheet, part.id, spec.load_of) if spec.load_of else part.id
            if spec.function in _VALUES and of in valued:
                found[f"{part.id}.{spec.name}"] = of
    opened = tuple(row for row in single_faults(sheet) if row.mode is FaultMode.OPEN and row.part in valued)
    small = dictionary(sheet, opened, count=_FEW)
    for at, test in enumerate(small.tests):
        if test.partition(".")[2].startswith("amps"):
            falls = small.faulty[:, at].mean(axis=1) / small.healthy[at].mean()
            if falls.size and falls.min() < _MOSTLY:
                found[test] = opened[int(falls.argmin())].part
    return found


# A current that falls below this share without a part is that part's; so few specimens tell it.
_MOSTLY, _FEW = 0.5, 4


def _told(sheet: Sheet, fault: LikelyFault | None, chance: np.random.Generator) -> Symptom:
    part = sheet.part(fault.part) if fault else None
    every = tuple(Symptom)
    if fault is None or part is None or chance.random() < STRAY_SHARE:
        return every[int(chance.integers(len(every)))]
    chances = symptom_chances(sheet, part, fault.fault)
    return every[int(chance.choice(len(every), p=[chances[symptom] for symptom in every]))]


def _shown(true: float, function: Function, chance: np.random.Generator, slips: float) -> Interval:
    """Return what the meter shows with its limit of error, or what a slip makes of it."""
    end, digit = ENDS.get(function, math.inf), DIGITS.get(function, 1e-3)
    noise, slip = chance.uniform(-1, 1), chance.random()
    kind, decades = chance.integers(3), chance.choice([-3, -1, 1, 3])
    value = true
    if slip < slips:
        value = (math.inf, digit, true * 10.0 ** float(decades))[int(kind)]
    if not math.isfinite(value) or value > end:
        return Interval(end if math.isfinite(end) else 1e6)
    error = PERCENT * value + digit
    shown = max(0.0, value + noise * error / 2)
    return Interval(max(0.0, shown - error), shown + error)
