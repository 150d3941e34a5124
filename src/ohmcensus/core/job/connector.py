"""The connectors of a case: how each looked before it was pulled, and what of it was held against the photo since."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ohmcensus.core.errors import InputError
from ohmcensus.core.event import ConnectorNoted, ConnectorTicked
from ohmcensus.core.job.case import Case


@dataclass(frozen=True, slots=True)
class Connector:
    """One connector with its photo.

    Parameters
    ----------
    noted
        How it looked.
    ticked
        Positions that sit right again.
    is_on
        Whether it was held against the photo since it was noted.
    """

    noted: ConnectorNoted
    ticked: frozenset[int] = frozenset()
    is_on: bool = False

    @property
    def left(self) -> tuple[int, ...]:
        """The positions that are not ticked, the smallest number first; an empty position wants its tick too."""
        return tuple(sorted(pin.number for pin in self.noted.pins if pin.number not in self.ticked))

    @property
    def is_whole(self) -> bool:
        """Whether it is on again with every position ticked."""
        return self.is_on and not self.left


def connectors(case: Case) -> tuple[Connector, ...]:
    """Return the connectors that were noted and not taken back, in the order in which they were first noted."""
    found: dict[str, Connector] = {}
    for event in case.of(ConnectorNoted, ConnectorTicked):
        match event.body:
            case ConnectorNoted(photo=photo, is_withdrawn=True):
                found.pop(photo, None)
            case ConnectorNoted(photo=photo) as noted:
                found[photo] = Connector(noted)
            case ConnectorTicked(photo=photo, pins=pins) if photo in found:
                found[photo] = replace(found[photo], ticked=frozenset(pins), is_on=True)
    return tuple(found.values())


def refuse_ticks(case: Case, body: ConnectorTicked) -> None:
    """Refuse ticks on a connector that was not noted, or on positions that it does not have.

    Raises
    ------
    InputError
        With what it does have.
    """
    found = next((row for row in connectors(case) if row.noted.photo == body.photo), None)
    if found is None:
        raise InputError(what="no such connector was noted on this job", remedy="note it first", field="photo")
    numbers = {pin.number for pin in found.noted.pins}
    strange = sorted(set(body.pins) - numbers)
    if strange:
        known = ", ".join(map(str, sorted(numbers))) or "none: tick it as a whole"
        what = f"{found.noted.words} has no pin {strange[0]}"
        raise InputError(what=what, remedy=f"its pins are {known}", field="pins")


def unticked(case: Case) -> tuple[str, ...]:
    """Return what keeps the connectors from being whole, a sentence each."""
    return tuple(_unticked(row) for row in connectors(case) if not row.is_whole)


def _unticked(row: Connector) -> str:
    if not row.is_on:
        return f"not held against its photo: {row.noted.words}"
    pins = ", ".join(map(str, row.left))
    return f"{row.noted.words}: pin{'s' if len(row.left) > 1 else ''} {pins} not ticked"
