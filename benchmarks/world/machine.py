"""One specimen of a machine, sound or broken, read by ngspice on decks that are edited here."""

from __future__ import annotations

import math
import re
import shutil
import subprocess
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from ohmcensus.services.reading.predict_reading import Asked, deck

_LINE = re.compile(r"^(?P<name>[RCL]\d+) (?P<a>\S+) (?P<b>\S+) (?P<value>\S+)$")
# How far sound specimens of one type differ, as standard deviations of the logarithm.
SCATTER, CONTACT_SCATTER, INSULATION_SCATTER = 0.03, 0.3, 1.2
# A thermometer is off by so much, kelvin; copper and a sensor that falls with heat go with it, per kelvin.
KELVIN, COPPER, SENSOR = 1.2, 0.0039, -0.045
SHORTED_BESIDE_OHM = 1e3
LONGEST_SECONDS = 3.0


@lru_cache(maxsize=4096)
def healthy_deck(sheet: str, test: str) -> str | None:
    """Return the deck of a test on the nominal machine, None where no circuit answers it."""
    try:
        return deck(Asked(sheet, test=test))
    except Exception:  # noqa: BLE001 - whatever the product says of it, this world has no deck then
        return None


@dataclass
class Specimen:
    """A machine of a type: each branch at its own value, and what is broken.

    Parameters
    ----------
    sheet
        Id or file of the type.
    chance
        Where chance comes from.
    sensors
        Parts whose resistance falls with heat.
    off
        By how much figures of parts differ from the sheet, as a factor by part.
    """

    sheet: str
    chance: np.random.Generator
    sensors: frozenset[str] = frozenset()
    off: Mapping[str, float] = field(default_factory=dict)
    _factors: dict[str, float] = field(default_factory=dict)

    def factor(self, branch: str, ohm: float) -> float:
        """Return by how much a branch differs from the nominal one; two halves of one load alike."""
        name = re.sub(r"_[12]$", "", branch)
        if name not in self._factors:
            wide = INSULATION_SCATTER if ohm >= 1e9 else CONTACT_SCATTER if ohm < 0.5 else SCATTER
            self._factors[name] = math.exp(wide * float(self.chance.standard_normal()))
            if 0.5 <= ohm < 1e9:
                self._factors[name] *= self.off.get(branch.partition(".")[0], 1.0)
        return self._factors[name]

    def reading(self, test: str, broken: Mapping[str, tuple[str, float]], kelvin: float) -> float | None:
        """Return what an ideal meter shows in a test, SI; None where no circuit answers it.

        Parameters
        ----------
        test
            "heater.element".
        broken
            How branches gave way, by "heater.element": way and amount.
        kelvin
            How far the part is from what the thermometer says.
        """
        text = healthy_deck(self.sheet, test)
        return None if text is None else _run(self._edited(text, broken, kelvin))

    def _edited(self, text: str, broken: Mapping[str, tuple[str, float]], kelvin: float) -> str:
        lines, branch, ends = [], "", {}
        for line in text.splitlines():
            if line.startswith("* "):
                branch = line[2:]
                lines.append(line)
                continue
            found = _LINE.match(line)
            if found is None or "." not in branch or found["name"].startswith("RG"):
                lines.append(line)
                continue
            ends[branch] = (found["a"], found["b"])
            lines.append(self._branch(branch, found, broken, ends, kelvin))
        return "\n".join([*lines, ""])

    def _branch(
        self,
        branch: str,
        found: re.Match[str],
        broken: Mapping[str, tuple[str, float]],
        ends: Mapping[str, tuple[str, str]],
        kelvin: float,
    ) -> str:
        value, (a, b) = float(found["value"]), (found["a"], found["b"])
        is_ohm = found["name"].startswith("R")
        # A capacitor's farads are not its series resistance: each scatters by its own size.
        value *= self.factor(branch, value) if is_ohm else self.factor(f"{branch} {found['name'][0]}", 10.0)
        part = branch.partition(".")[0]
        if is_ohm and branch.endswith(("_1", "_2")):
            value *= 1 + kelvin * (SENSOR if part in self.sensors else COPPER)
        for element, (way, amount) in broken.items():
            if branch == element or branch.removeprefix(element) in {"_1", "_2", "_shunt", "_leak", "_short"}:
                inner = branch.removeprefix(element)
                value = _broken(found, inner, way, amount, value)
                a = _leak_from(amount, a, ends, element) if (way, inner) == ("leak", "_leak") else a
        return f"{found['name']} {a} {b} {value:.12g}"


# What a way of breaking does to the branches of an element, by the ending of their names.
_SET, _ADD, _TIMES, _LESS = "set", "add", "times", "less"
_DOES: Mapping[str, Mapping[str, str]] = {
    "open": {"": _SET, "_1": _SET},
    "stuck open": {"": _SET},
    "welded": {"": _SET},
    "joint": {"": _ADD, "_1": _ADD},
    "short": {"_shunt": _SET, "_short": _SET, "": _SET},
    "shorted turns": {"_1": _LESS, "_2": _LESS},
    "drift": {"": _TIMES, "_1": _TIMES, "_2": _TIMES},
    "faded": {"": _TIMES},
    "leak": {"_leak": _SET},
}


def _broken(found: re.Match[str], inner: str, way: str, amount: float, value: float) -> float:
    """Return the value of a branch of a broken element: of its own one, a half, a shunt, a leak."""
    does = _DOES[way].get(inner)
    is_farad = found["name"].startswith("C")
    if does is None or is_farad is not (way == "faded"):
        return value
    # A conductor or a coil is shorted by what lies beside it; only a valve by itself.
    if way == "short" and inner == "" and value < SHORTED_BESIDE_OHM:
        return value
    return {_SET: amount, _ADD: value + amount, _TIMES: value * amount, _LESS: value * (1 - amount)}[does]


def _leak_from(amount: float, middle: str, ends: Mapping[str, tuple[str, str]], element: str) -> str:
    """Return where a leak starts: at either end of the load or in its middle, by the last digit of its size."""
    place = int(math.log10(amount) * 1000) % 3
    if place == 1 and f"{element}_1" in ends:
        return ends[f"{element}_1"][0]
    if place == 2 and f"{element}_2" in ends:
        return ends[f"{element}_2"][1]
    return middle


def _run(text: str) -> float:
    """Return what ngspice prints; where it finds no operating point of the junctions it begins in another way."""
    for options in ("", ".options noopiter", ".options gmin=1e-10", ".options rshunt=1e13"):
        said = _said(text.replace(".control", f"{options}\n.control", 1))
        found = re.search(r"^reading = (\S+)", said or "", re.MULTILINE)
        if found and math.isfinite(float(found[1])):
            return abs(float(found[1]))
    return math.inf


def _said(text: str) -> str | None:
    program = shutil.which("ngspice")
    assert program, "ngspice is needed: it reads this world"
    try:
        ran = subprocess.run(
            [program, "-b"], input=text, capture_output=True, text=True, check=False, timeout=LONGEST_SECONDS
        )
    except subprocess.TimeoutExpired:
        return None
    return ran.stdout


@lru_cache(maxsize=16)
def elements(sheet: str, test: str) -> Mapping[str, list[tuple[str, str, float]]]:
    """Return what every part is made of, told from a deck: name, sort (a key of ``WAYS``) and ohms, by part.

    A load is two halves with a shunt; a capacitor has one; a wire leaks; what closes or is next to nothing is a
    contact; a large resistance that belongs to no load is a junction where it has a name for its rail, else a resistor.
    """
    branches: dict[str, tuple[float, bool]] = {}
    lines = (healthy_deck(sheet, test) or "").splitlines()
    for at, line in enumerate(lines[:-2]):
        if line.startswith("* ") and "." in line and _LINE.match(lines[at + 1]):
            branches[line[2:]] = (float(lines[at + 1].split()[3]), lines[at + 2].startswith("C"))
    found: dict[str, list[tuple[str, str, float]]] = {}
    for branch, (ohm, is_capacitor) in branches.items():
        part, _, name = branch.partition(".")
        if part in {"house", "meter"} or name.endswith(("_2", "_shunt", "_leak", "_short")):
            continue
        sort = _sort(branch, name, ohm, branches, is_capacitor=is_capacitor)
        own = name.removesuffix("_1") if sort == "load" else name
        found.setdefault(part, []).append((own, sort, 2 * ohm if sort == "load" else ohm))
    return found


def _sort(branch: str, name: str, ohm: float, branches: Mapping[str, tuple[float, bool]], *, is_capacitor: bool) -> str:
    if name.endswith("_1") and f"{branch.removesuffix('_1')}_2" in branches:
        return "load"
    if is_capacitor:
        return "capacitor"
    if f"{branch}_leak" in branches:
        return "wire"
    if name.endswith(("_plus", "_minus")):
        return "junction"
    if ohm >= 1e11 and branch.partition(".")[0] in {"cord", "harness", "capacitor"}:
        return "insulation"
    return "contact" if ohm < 0.5 or ohm >= 1e11 else "resistor"
