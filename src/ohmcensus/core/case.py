"""A machine's sheet and everything observed on one job: what every rule above this is a function of."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import cached_property

from ohmcensus.core.meter import Function, Meter
from ohmcensus.core.quantity import Indication
from ohmcensus.core.safety.state import SafetyState
from ohmcensus.core.sheet import Sheet


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
        Temperature of the part.
    alone
        Whether the part was measured off its plugs.
    at, who
        Moment (ISO 8601, UTC) and technician.
    supersedes
        Id of the reading that this one corrects or takes back, None for a fresh one.
    withdrawn
        Whether this takes ``supersedes`` back instead of correcting it; an undo.
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

    @property
    def line(self) -> str:
        """Name of the line that it belongs to: its test, or both points."""
        return self.test or " ".join(self.between)


@dataclass(frozen=True)
class Case:
    """The sheet plus what was observed, in the order in which it was.

    Parameters
    ----------
    sheet
        The machine's type.
    readings
        Every row ever written, oldest first.
    celsius
        Ambient temperature.
    safety
        State of safety.
    """

    sheet: Sheet
    readings: tuple[Reading, ...] = ()
    celsius: float = 20.0
    safety: SafetyState = field(default=SafetyState.NOT_PROVED)

    @cached_property
    def standing(self) -> tuple[Reading, ...]:
        """The readings that stand: corrected and withdrawn ones left out, oldest first."""
        return standing(self.readings)


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
