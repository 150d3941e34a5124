"""A reading as it was taken, and the one table by which it is written down and read back."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Set
from dataclasses import dataclass
from typing import Any

from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import Bound, Indication, Unit

# How over-range is written where a number would stand.
OVER = "OL"
Plain = str | float | bool | tuple[str, str] | None


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading as it was taken; never changed, only superseded or withdrawn by a later one.

    Parameters
    ----------
    id
        Made by whoever took it, so that a retry is recognised.
    between
        The two points.
    test
        Id of the test it answers, None where no test names the points.
    function, meter, indication, text
        Instrument, what it did, what it showed, and that as typed.
    celsius
        Temperature of the part; where nobody stated it, that of the reference.
    is_celsius_stated
        Whether somebody stated it.
    condition
        State of the part besides its temperature, "dried", "wet", "hot", and "at 250 V"; empty for most.
    alone
        Whether the part was measured off its plugs.
    at, who
        Moment (ISO 8601, UTC) and technician.
    supersedes
        Id of the reading that this one corrects or takes back, None for a fresh one.
    withdrawn
        Whether this takes ``supersedes`` back instead of correcting it; an undo.
    loose
        Whether the part lay loose, in the hand or on the bench.
    override
        Why it was taken although the machine was not proved dead, empty for nearly all.
    order
        Revision of the job at which it was written: its place among readings and events.
    told
        Verdict that was told when it was logged, empty where none was.
    inhand
        Whether the pulled plug was in the hand of whoever measured.
    device
        Device that wrote it, a random id.
    was
        Of a reading that only a powered machine gives: whether it was taken now, or before the machine was cut off;
        empty where nobody was asked.
    door, step
        How door or lid stood, and in which step of the programme; empty where nobody was asked.
    refused
        Why it would not have been taken here, of a reading that came in from a file; empty for nearly all.
    """

    id: str
    between: tuple[str, str]
    test: str | None
    function: Function
    meter: Meter
    indication: Indication
    text: str
    celsius: float
    alone: bool = False
    at: str = ""
    who: str = ""
    supersedes: str | None = None
    withdrawn: bool = False
    loose: bool = False
    override: str = ""
    order: int = 0
    told: str = ""
    inhand: bool = False
    device: str = ""
    is_celsius_stated: bool = True
    condition: str = ""
    was: str = ""
    door: str = ""
    step: str = ""
    refused: str = ""

    @property
    def stated_celsius(self) -> float | None:
        """The temperature of the part, None where nobody stated it."""
        return self.celsius if self.is_celsius_stated else None

    @property
    def line(self) -> str:
        """Name of the line that it belongs to: its test, or both points."""
        return self.test or " ".join(self.between)


def standing(readings: Iterable[Reading]) -> tuple[Reading, ...]:
    """Return the rows that stand after every correction and withdrawal.

    Notes
    -----
    A correction takes the place of the reading that it names. Withdrawing a correction brings back
    what it corrected.
    """
    written = list(readings)
    order = {row.id: index for index, row in enumerate(written)}
    rows: dict[str, Reading] = {}
    replaced: dict[str, Reading] = {}
    for row in written:
        gone = rows.pop(row.supersedes, None) if row.supersedes else None
        if not row.withdrawn:
            rows[row.id] = row
            if gone is not None:
                replaced[row.id] = gone
        elif gone is not None and gone.id in replaced:
            rows[replaced[gone.id].id] = replaced[gone.id]
    return tuple(sorted(rows.values(), key=lambda row: order[row.id]))


# How a reading is written down: every field but its meter, by its name in files, as plain JSON. Storage and files
# spell a reading by this table and by nothing else.
_PLAIN: Mapping[str, Callable[[Reading], Plain]] = {
    "id": lambda row: row.id,
    "test": lambda row: row.test,
    "between": lambda row: row.between,
    "function": lambda row: row.function.value,
    "value": lambda row: row.indication.value,
    "unit": lambda row: row.indication.unit.value,
    "bound": lambda row: row.indication.bound.value,
    "last_place": lambda row: row.indication.last_place,
    "until": lambda row: OVER if row.indication.until == math.inf else row.indication.until,
    "text": lambda row: row.text,
    "celsius": lambda row: row.celsius,
    "is_celsius_stated": lambda row: row.is_celsius_stated,
    "condition": lambda row: row.condition,
    "alone": lambda row: row.alone,
    "loose": lambda row: row.loose,
    "inhand": lambda row: row.inhand,
    "override": lambda row: row.override,
    "device": lambda row: row.device,
    "was": lambda row: row.was,
    "door": lambda row: row.door,
    "step": lambda row: row.step,
    "refused": lambda row: row.refused,
    "at": lambda row: row.at,
    "who": lambda row: row.who,
    "supersedes": lambda row: row.supersedes,
    "withdrawn": lambda row: row.withdrawn,
    "order": lambda row: row.order,
    "told": lambda row: row.told,
}
_INDICATION = frozenset({"value", "unit", "bound", "last_place", "until"})


def plain_reading(row: Reading) -> dict[str, Any]:
    """Return a reading as plain values by name; its meter is kept beside it."""
    return {name: value(row) for name, value in _PLAIN.items()}


def reading_from(plain: Mapping[str, Any], meter: Meter) -> Reading:
    """Return the reading that plain values tell of; what is not named keeps its default, other names are left out.

    Raises
    ------
    ValueError
        If a function, a unit or a bound is none that is known.
    """
    until = math.inf if plain.get("until") == OVER else plain.get("until")
    last_place = plain.get("last_place", 0.0)
    shows = Indication(plain["value"], Unit(plain["unit"]), Bound(plain["bound"]), last_place, until)
    told = _named(plain, _PLAIN.keys() - _INDICATION - {"between", "function"})
    first, second = plain["between"]
    return Reading(between=(first, second), function=Function(plain["function"]), meter=meter, indication=shows, **told)


def _named(plain: Mapping[str, Any], names: Set[str]) -> dict[str, Any]:
    return {name: plain[name] for name in names if name in plain}
