"""Jobs of this world played against the product: what is asked is answered, until it ends or the time is over."""

from __future__ import annotations

import json
import math
import subprocess
import sys
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from benchmarks.world import breaks
from benchmarks.world.breaks import Break, between
from benchmarks.world.job import Job, as_shown
from benchmarks.world.machine import KELVIN, Specimen, elements
from ohmcensus.exchange.sheet_yaml import plain_sheet, read_sheet

# A technician's patience on one machine, minutes; a test is made at most so often.
MINUTES, MOST_OF_ONE = 45.0, 3
# What stands first is told on the way, minutes.
CURVE_MINUTES = (15.0, 25.0, 45.0)
SLIPS, LOOKS_WRONG, LOOKS_SHOW, DECLARED = 0.02, 0.03, 0.95, 0.9
_BADLY = ("open", "short", "stuck open", "joint", "drift", "leak")
_COMMAND = [sys.executable, "-c", "from ohmcensus.cli import main; main()"]


class Product:
    """The product as a process: one job a line in, one answer a line out."""

    def __init__(self) -> None:
        self._process = subprocess.Popen(
            [*_COMMAND, "suspects", "--lines"], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
        )

    def asked(self, job: Job) -> dict[str, Any]:
        """Return the answer to a job as it stands."""
        stdin, stdout = self._process.stdin, self._process.stdout
        assert stdin
        assert stdout
        stdin.write(json.dumps(job.as_file()) + "\n")
        stdin.flush()
        line = stdout.readline()
        assert line, "the product has ended"
        answer: dict[str, Any] = json.loads(line)
        assert "suspects" in answer, answer
        return answer

    def close(self) -> None:
        """End the process."""
        assert self._process.stdin
        self._process.stdin.close()
        self._process.wait()


@dataclass(frozen=True)
class Type:
    """A type of machine: its sheet as plain data, and its listed tests."""

    sheet: str
    plain: dict[str, Any]
    tests: Mapping[str, dict[str, Any]]

    @property
    def kinds(self) -> dict[str, str]:
        """The kind of every part."""
        return {row["id"]: row["kind"] for row in self.plain["parts"]}

    @property
    def is_own(self) -> bool:
        """Whether it is none of the built-in types, so that a job brings its sheet with it."""
        return self.sheet.endswith(".yaml")

    @property
    def deck_test(self) -> str:
        """A test whose deck shows every branch at rest, as every deck does."""
        return next(name for name, row in self.tests.items() if row["meter"] in {"ohm", "continuity"})


@lru_cache(maxsize=16)
def type_of(sheet: str) -> Type:
    """Return a type by its id or the path of its file."""
    shown = subprocess.run([*_COMMAND, "sheet", "show", sheet], capture_output=True, text=True, check=True).stdout
    listed = subprocess.run([*_COMMAND, "tests", "--sheet", sheet], capture_output=True, text=True, check=True).stdout
    return Type(sheet, plain_sheet(read_sheet(shown, sheet)), {row["id"]: row for row in json.loads(listed)})


@dataclass(frozen=True)
class Outcome:
    """How a job came out.

    Parameters
    ----------
    broken
        What was wrong.
    first, stated
        The part that stood first at the end, and its chance as it was stated.
    is_named
        Whether it was named.
    tests, minutes
        What it took.
    asked_outlet
        Whether the outlet was asked.
    led
        What stood first after so many minutes (``CURVE_MINUTES``), or at the end.
    """

    broken: Break
    first: str
    stated: float
    is_named: bool
    tests: int
    minutes: float
    asked_outlet: bool
    led: tuple[str, ...]

    @property
    def is_right(self) -> bool:
        """Whether the part that stood first is the one that was wrong; nothing, where nothing was."""
        return self.first == self.broken.part


def drawn(kind_of: Type, chance: np.random.Generator) -> Break:
    """Draw what is wrong on one job, by the mix."""
    group = str(chance.choice(list(breaks.MIX), p=list(breaks.MIX.values())))
    if group == "sound":
        return Break(group, "", told=_one(breaks.ANY, chance))
    if group == "dead outlet":
        return Break(group, "outlet", told="dead")
    if group == "mechanical part":
        parts = [part for part, kind in kind_of.kinds.items() if kind in breaks.OF_MECHANICAL]
        part = _one(parts, chance)
        return Break(group, part, told=_one(breaks.OF_MECHANICAL[kind_of.kinds[part]], chance))
    if group == "mechanical fault":
        rows = [(part, *row) for row in breaks.MECHANICAL for part, kind in kind_of.kinds.items() if kind == row[0]]
        weights = np.array([row[3] for row in rows], dtype=float)
        part, _, look, _, told = rows[int(chance.choice(len(rows), p=weights / weights.sum()))]
        return Break(group, part, look=look, told=told)
    return _electrical(kind_of, group, chance)


def _electrical(kind_of: Type, group: str, chance: np.random.Generator) -> Break:
    own = elements(kind_of.sheet, kind_of.deck_test)
    parts = [part for part in kind_of.kinds if part in own]
    weights = np.array([breaks.OFTEN.get(kind_of.kinds[part], 1.0) for part in parts])
    part = parts[int(chance.choice(len(parts), p=weights / weights.sum()))]
    kind = kind_of.kinds[part]
    name, sort, ohm = own[part][int(chance.integers(len(own[part])))]
    if sort == "load":
        sort = "element" if kind.endswith("heater") else "sensor" if kind == "ntc" else "load"
    ways = breaks.WAYS[sort]
    way = str(chance.choice(list(ways), p=np.array(list(ways.values())) / sum(ways.values())))
    told = _one(breaks.ANY, chance) if group == "stray symptom" else _told(kind_of, kind, name, way, chance)
    return Break(group, part, f"{part}.{name}", way, breaks.severity(chance, way, ohm), told=told)


def _told(kind_of: Type, kind: str, element: str, way: str, chance: np.random.Generator) -> str:
    """Return what the customer says: a leak trips, a short burns, what is welded runs on, all else stands idle."""
    if way == "leak":
        return _one(breaks.TRIPS, chance)
    if way == "short":
        return _one((*breaks.BURNT, *breaks.IDLE.get(kind, ("stops",))), chance)
    fed = kind
    if kind in {"control_board", "harness", "cam_timer"}:
        named = "heater" if element == "relay" else element.removeprefix("out_")
        fed = kind_of.kinds.get(named, kind)
    if way == "welded" and fed in breaks.RUNS_ON:
        return _one(breaks.RUNS_ON[fed], chance)
    return _one(breaks.IDLE.get(fed, ("stops", "code", "no_start")), chance)


def _one(rows: Sequence[str], chance: np.random.Generator) -> str:
    return str(rows[int(chance.integers(len(rows)))])


def played(kind_of: Type, product: Product, seed: int, *, are_figures_off: bool = False) -> Outcome:
    """Play one job to its end; where figures are off, two parts in five are another variant than the sheet says."""
    chance = np.random.default_rng(seed)
    broken = drawn(kind_of, chance)
    world = World(kind_of, broken, chance, are_figures_off=are_figures_off)
    job = Job(kind_of.plain["id"], (broken.told,), kind_of.plain if kind_of.is_own else None)
    minutes, made, answer, led = 0.0, dict[str, int](), product.asked(job), list[str]()
    while (following := answer["next"]) and minutes < MINUTES and not answer["named"] and following["test"]:
        asked = [following["test"], *following.get("also", [])]
        if all(made.get(name, 0) >= MOST_OF_ONE for name in asked):
            break
        led += [_first(answer)[0] for at in CURVE_MINUTES[len(led) :] if minutes + following["minutes"] > at]
        minutes += following["minutes"]
        for name in asked:
            made[name] = made.get(name, 0) + 1
            world.plate(job, following) if following.get("kind") == "plate" else world.answer(job, name)
        answer = product.asked(job)
    first, stated = _first(answer)
    led += [first] * (len(CURVE_MINUTES) - len(led))
    asked_outlet = any(name.startswith("outlet.") for name in made)
    tests = sum(made.values())
    return Outcome(broken, first, stated, bool(answer["named"]), tests, minutes, asked_outlet, tuple(led))


def _first(answer: Mapping[str, Any]) -> tuple[str, float]:
    """Return what stands first in an answer, empty for nothing, and its chance."""
    first, nothing = answer["suspects"][0], float(answer["nothing_found"])
    is_sound = nothing > first["probability"]
    return ("", nothing) if is_sound else (first["part"], float(first["probability"]))


class World:
    """One machine with what is wrong with it, as whoever stands before it finds it."""

    def __init__(
        self,
        kind_of: Type,
        broken: Break,
        chance: np.random.Generator,
        *,
        are_figures_off: bool = False,
        also: Break | None = None,
    ) -> None:
        self._type, self._broken, self._chance = kind_of, broken, chance
        self._all = [broken] if also is None else [broken, also]
        off = {}
        if broken.group == "wrong sheet" or are_figures_off:
            off = {part: float(chance.choice([0.7, 1.3])) for part in kind_of.kinds if chance.random() < 0.4}
        sensors = frozenset(part for part, kind in kind_of.kinds.items() if kind == "ntc")
        self._specimen = Specimen(kind_of.sheet, chance, sensors, off)
        self._kelvin = float(chance.uniform(-KELVIN, KELVIN))

    def answer(self, job: Job, name: str) -> None:
        """Write down what is found where the product asks."""
        part, _, own = name.partition(".")
        if name == "machine.run":
            job.happened(kind="run_watched", outcome=self._run())
        elif own.startswith("look_"):
            is_cause = any(row.part == part and _shows(row, own.removeprefix("look_")) for row in self._all)
            shows = LOOKS_SHOW if is_cause else LOOKS_WRONG
            job.happened(kind="checked", check=name, outcome="bad" if self._chance.random() < shows else "good")
        else:
            self._read(job, self._type.tests[name])

    def plate(self, job: Job, asked: dict[str, Any]) -> None:
        """Write down what is stamped on a part: what this machine's own figure is, in watts, ohms or farads."""
        part, rating = asked["part"], asked["rating"]
        row = next(row for row in self._type.plain["parts"] if row["id"] == part)
        figure = row.get("ratings", {}).get(rating)
        if not isinstance(figure, int | float):
            window = self._type.tests[f"{part}.{rating}"]["window"]
            figure = window["nominal"] or math.sqrt(window["lo"] * window["hi"])
        off = self._specimen.off.get(part, 1.0)
        value = figure / off if rating == "watts" else figure * off
        job.happened(kind="stamped", part=part, rating=rating, value=value)

    def mended(self, job: Job, part: str) -> None:
        """Let another piece of a part sit there: what was wrong with it is gone."""
        job.happened(kind="changed", part=part, intervention="replaced")
        self._all = [row for row in self._all if row.part != part]

    def _run(self) -> str:
        """Return the step at which a run through fails, by what was told; through where nothing does."""
        steps = [step for step in self._type.plain["states"].get("programme", ()) if step != "off"]
        if any(row.told == "trips" for row in self._all):
            return "trips"
        wanted = {step for row in self._all if row.group not in {"stray symptom", "sound"} for step in _at(row)}
        found = [step for step in steps if step in wanted]
        return found[0] if found and self._chance.random() < DECLARED else "through"

    def _read(self, job: Job, test: dict[str, Any]) -> None:
        if self._chance.random() < SLIPS and test["meter"] in {"ohm", "insulation", "capacitance", "continuity"}:
            job.read(test, as_shown(test["meter"], between(self._chance, 0.1, 1e7), self._chance))
            return
        broken = {row.element: (row.way, row.amount) for row in self._all if row.element}
        is_dead = self._broken.group == "dead outlet" and test["meter"] in {"volts_ac", "ampere", "leakage"}
        if is_dead:
            job.read(test, 0.0)
            return
        true = self._specimen.reading(test["id"], broken, self._kelvin)
        if true is None:
            self._declared(job, test)
            return
        job.read(test, as_shown(test["meter"], true, self._chance))

    def _declared(self, job: Job, test: dict[str, Any]) -> None:
        """Write what no circuit answers: good nearly always, bad mostly where this very part gave way."""
        is_own = any(row.part == test["part"] and row.way in _BADLY for row in self._all)
        is_bad = self._chance.random() < (DECLARED if is_own else 1 - 0.97)
        window = test["window"]
        lo, hi = window["lo"], window["hi"]
        good = window["nominal"] or ((lo + hi) / 2 if lo is not None and hi is not None else lo or hi or 0.0)
        if test["meter"] == "volts_dc" and test["test"] not in {"supply", "link", "output"}:
            job.read(test, 0.02 if is_bad else 0.1, None if is_bad else 4.9)
            return
        if test["test"] in {"link", "output"}:
            good = 2.4
        bad = 0.0 if test["meter"] != "length" else 0.4 * (lo or 0.01)
        job.read(test, as_shown(test["meter"], bad if is_bad else good, self._chance))


def _shows(row: Break, look: str) -> bool:
    return row.group == "mechanical part" or row.look == look


def _at(row: Break) -> Sequence[str]:
    return _FAILS_AT.get(row.told, ())


# At which steps a run fails that is told of so.
_FAILS_AT = {
    "dead": ("lock", "fill"),
    "no_start": ("lock", "fill"),
    "no_lock": ("lock",),
    "no_water": ("fill", "prewash"),
    "no_heat": ("heat", "steam", "dry"),
    "no_turn": ("turn", "wash"),
    "hums": ("turn", "wash"),
    "no_drain": ("drain",),
    "no_spin": ("spin",),
    "stops": ("turn", "wash", "drain"),
    "code": ("heat", "turn", "wash"),
}
