"""One job as the product's documented file, and what is done on it: readings, looks, a watched run."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np

AT = "2026-01-05T08:00:00+00:00"
# The bag of this world: what a range shows, its last digit, and its limits of error in percent and digits.
_RANGES: dict[str, dict[str, list[tuple[float, float, float, float]]]] = {
    "meter": {
        "ohm": [(600.0 * 10**k, 0.1 * 10**k, 0.9, 3.0) for k in range(6)],
        "capacitance": [(6e-8 * 10**k, 1e-11 * 10**k, 3.0, 5.0) for k in range(5)],
        "volts_ac": [(6.0, 0.001, 1.0, 3.0), (60.0, 0.01, 1.0, 3.0), (600.0, 0.1, 1.0, 3.0)],
        "volts_dc": [(6.0, 0.001, 0.5, 2.0), (60.0, 0.01, 0.5, 2.0), (600.0, 0.1, 0.5, 2.0)],
        "diode": [(2.0, 0.001, 1.5, 3.0)],
        "ampere": [(6.0, 0.001, 1.2, 3.0), (20.0, 0.01, 1.2, 3.0)],
        "hertz": [(6e5, 1.0, 0.1, 2.0)],
        "length": [(0.15, 0.0005, 0.0, 1.0)],
        "rcd_current": [(0.5, 1e-4, 5.0, 2.0)],
        "rcd_time": [(10.0, 1e-3, 2.0, 2.0)],
    },
    "tester": {
        "continuity": [(20.0, 0.01, 2.0, 2.0)],
        "insulation": [(299e6, 1e4, 3.0, 2.0)],
        "leakage": [(0.02, 1e-5, 3.0, 3.0)],
    },
}
_UNITS = {
    **dict.fromkeys(("ohm", "continuity", "insulation"), "ohm"),
    **dict.fromkeys(("leakage", "ampere", "rcd_current"), "ampere"),
    **dict.fromkeys(("volts_ac", "volts_dc", "diode"), "volt"),
    **{"capacitance": "farad", "hertz": "hertz", "length": "metre", "rcd_time": "second"},
}


def _meter(name: str) -> dict[str, Any]:
    keys = ("full_scale", "resolution", "percent", "digits")
    functions = {row: [dict(zip(keys, each, strict=True)) for each in rows] for row, rows in _RANGES[name].items()}
    return {"id": name, "title": name, "functions": functions, "nulled": True, "shows_ol": name == "meter"}


@dataclass
class Job:
    """A job that grows, in ``ohmcensus-job/1``.

    Parameters
    ----------
    sheet
        Id of the type; ``own`` its body where it is none of the built-in ones.
    told
        Symptoms.
    """

    sheet: str
    told: tuple[str, ...]
    own: dict[str, Any] | None = None
    readings: list[dict[str, Any]] = field(default_factory=list)
    history: list[dict[str, Any]] = field(default_factory=list)
    events: list[dict[str, Any]] = field(default_factory=list)
    _order: int = 1

    def as_file(self) -> dict[str, Any]:
        """Return the job as it is read."""
        return {
            "format": "ohmcensus-job/1",
            **{"id": "w", "revision": self._order, "place": "world", "machine": "M", "serial": "", "complaint": ""},
            **{"sheet": self.sheet, "opened_at": AT, "changed_at": AT, "ambient_celsius": 20.0},
            "safety": {"state": "not_proved", "at": "", "reason": ""},
            **{"symptoms": list(self.told), "intake": {"symptoms": list(self.told)}, "lines": []},
            **{"events": self.events, "readings": self.readings, "history": self.history},
            **{"meters": {name: _meter(name) for name in _RANGES}, "own_sheet": self.own},
        }

    def happened(self, **body: object) -> None:
        """Write an event."""
        self._order += 1
        name = f"e{self._order}"
        self.events.append({"id": name, "order": self._order, "at": AT, "who": "", "body": body})

    def read(self, test: dict[str, Any], value: float, until: float | None = None) -> None:
        """Write a reading of a test as its meter shows it; infinite where it was over-range."""
        self._order += 1
        meter = "tester" if test["meter"] in _RANGES["tester"] else "meter"
        is_over = math.isinf(value) or value > _RANGES[meter][test["meter"]][-1][0]
        end = _RANGES[meter][test["meter"]][-1][0]
        shown = None if is_over and meter == "meter" else end if is_over else value
        row = {
            **{"id": f"r{self._order}", "test": test["id"], "between": test["between"], "function": test["meter"]},
            **{"meter": meter, "text": "as shown", "value": shown, "unit": _UNITS[test["meter"]]},
            **{"bound": "above" if is_over else "exact", "last_place": 0.0, "until": until, "celsius": 20.0},
            **{"is_celsius_stated": True, "alone": False, "at": AT, "who": ""},
        }
        self.readings.append({**row, "interval": [None, None], "verdict": "", "window": None, "sentence": ""})
        self.history.append({**row, "supersedes": None, "withdrawn": False, "order": self._order})


def as_shown(function: str, true: float, chance: np.random.Generator) -> float:
    """Return what the display shows of a value: within its limit of error, to its last digit, or over-range."""
    meter = "tester" if function in _RANGES["tester"] else "meter"
    ranges = _RANGES[meter][function]
    if not math.isfinite(true) or true > ranges[-1][0]:
        return math.inf
    _, digit, percent, digits = next(row for row in ranges if true <= row[0])
    limit = true * percent / 100 + digits * digit
    return max(0.0, round((true + limit * float(chance.uniform(-1, 1))) / digit) * digit)
