"""A machine's sheet and everything observed on one job: what every rule above this is a function of."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property
from itertools import chain
from typing import Any, TypeVar, overload

from ohmcensus.core.event import (
    Changed,
    Ended,
    Event,
    RecordWithdrawn,
    Reopened,
    RunWithdrawn,
    Stamped,
    StripBack,
    StripStep,
)
from ohmcensus.core.event.record import Record
from ohmcensus.core.intake import Complaint, DataPlate
from ohmcensus.core.job.cover_minutes import Timed, learned_minutes
from ohmcensus.core.job.former import FormerDanger
from ohmcensus.core.job.reading import Reading, standing
from ohmcensus.core.limits.profile import LimitProfile, usual_profile
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine.stamped import as_stamped
from ohmcensus.core.sheet import Sheet

B = TypeVar("B", bound=Record)
B2 = TypeVar("B2", bound=Record)


@dataclass(frozen=True)
class Frame:
    """What held from one record of a job on: sheet, complaint, plate and limits; another one came into force later.

    ``order`` is the revision from which on it held; ``former`` are the dangers that an earlier job on the same
    serial number left behind; at an arrival the job came in from a file, and nobody knows how the machine stands.
    """

    order: float
    sheet: Sheet
    complaint: Complaint
    plate: DataPlate
    profile: LimitProfile
    former: tuple[FormerDanger, ...] = ()
    is_arrival: bool = False

    def holds(self, other: Frame) -> bool:
        """Tell whether another frame says the same."""
        return (
            self.sheet == other.sheet
            and self.complaint == other.complaint
            and self.plate == other.plate
            and self.profile == other.profile
            and self.former == other.former
        )

    @cached_property
    def terms(self) -> Terms:
        """What readings are held against in this frame."""
        return terms_of(self.sheet, self.plate, self.profile)


def terms_of(sheet: Sheet, plate: DataPlate, profile: LimitProfile) -> Terms:
    """Return the terms of a machine; its own plate may say that it is earthed after all."""
    return Terms(sheet, profile, sheet.protection_class == "II" and plate.protection_class != "I")


# What is taken back within this time, by the device that wrote it, was never made (SAFETY).
NEVER_MADE = timedelta(minutes=2)


def _is_slip(made: Event[Any], back: Event[Any]) -> bool:
    later = datetime.fromisoformat(back.at) - datetime.fromisoformat(made.at)
    return later <= NEVER_MADE and made.device == back.device


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
    complaint, plate
        What the customer says, what the machine's plate says.
    events
        Everything else that happened, oldest first; what was taken back is among it, and ``of`` leaves it out.
    profile
        Limits that the firm has chosen; None for those usual at the supply.
    timed
        What covers of this type took on other jobs, by cover.
    frames
        What held before: sheets, complaints, plates and limits of former times, oldest first.
    former
        Dangers that an earlier job on this machine left behind.
    """

    sheet: Sheet
    readings: tuple[Reading, ...] = ()
    celsius: float = 20.0
    complaint: Complaint = field(default_factory=Complaint)
    plate: DataPlate = field(default_factory=DataPlate)
    events: tuple[Event, ...] = ()
    profile: LimitProfile | None = None
    timed: Mapping[str, Timed] = field(default_factory=dict)
    frames: tuple[Frame, ...] = ()
    former: tuple[FormerDanger, ...] = ()

    def __post_init__(self) -> None:
        """Let what is stamped on the parts of this machine hold before what the sheet of its type says."""
        read = (event.body for event in self.events)
        stamps = [(row.part, row.rating, row.value) for row in read if isinstance(row, Stamped)]
        if stamps:
            object.__setattr__(self, "sheet", as_stamped(self.sheet, stamps))

    @property
    def limits(self) -> LimitProfile:
        """The limits that hold on this job."""
        return self.profile or usual_profile(self.sheet.volts)

    @cached_property
    def terms(self) -> Terms:
        """What readings are held against now."""
        return terms_of(self.sheet, self.plate, self.limits)

    @cached_property
    def present(self) -> Frame:
        """The frame that holds now; it came into force with the last one that was written, or is about to."""
        former = self.frames[-1].former if self.frames else self.former
        return Frame(math.inf, self.sheet, self.complaint, self.plate, self.limits, former)

    @cached_property
    def cover_minutes(self) -> Mapping[str, float]:
        """What each cover takes to come off, in minutes."""
        panels = self.sheet.panels
        return {name: learned_minutes(panel.minutes, self.timed.get(name, Timed())) for name, panel in panels.items()}

    @overload
    def of(self, kind: type[B], /) -> tuple[Event[B], ...]: ...

    @overload
    def of(self, kind: type[B], other: type[B2], /) -> tuple[Event[B] | Event[B2], ...]: ...

    @overload
    def of(self, *kinds: type[Record]) -> tuple[Event[Any], ...]: ...

    def of(self, *kinds: type[Record]) -> tuple[Event[Any], ...]:
        """Return the events of some kinds that count, in their order."""
        if len(kinds) == 1:
            return self._by_kind.get(kinds[0], ())
        return tuple(sorted(chain.from_iterable(self._by_kind.get(kind, ()) for kind in kinds), key=self._place))

    def last(self, kind: type[B]) -> Event[B] | None:
        """Return the last event of a kind, None where there is none."""
        found = self.of(kind)
        return found[-1] if found else None

    def before(self, order: float) -> Case:
        """Return the case as its records were before a revision; sheet, limits and complaint are those of now."""
        return replace(
            self,
            readings=tuple(row for row in self.readings if row.order < order),
            events=tuple(event for event in self.events if event.order < order),
        )

    @property
    def ended(self) -> Event[Ended] | None:
        """The event that ended the job, None while it goes on."""
        ends = [event for event in self.of(Ended, Reopened) if not event.refused]
        last = ends[-1] if ends else None
        return last if last is not None and isinstance(last.body, Ended) else None

    @property
    def first_change(self) -> float:
        """Revision of the first change of a part, infinite where nothing was changed."""
        return min((event.order for event in self.of(Changed)), default=math.inf)

    def _place(self, event: Event[Any]) -> int:
        return self._places[id(event)]

    @cached_property
    def _places(self) -> Mapping[int, int]:
        return {id(event): place for place, event in enumerate(self.events)}

    @cached_property
    def _by_kind(self) -> Mapping[type[Record], tuple[Event[Any], ...]]:
        found: dict[type[Record], list[Event[Any]]] = {}
        for event in self.events:
            if event.id not in self.withdrawn:
                found.setdefault(type(event.body), []).append(event)
        return {kind: tuple(rows) for kind, rows in found.items()}

    @cached_property
    def withdrawn(self) -> frozenset[str]:
        """Ids of the events that were taken back."""
        return frozenset(event.body.record for event in self._undone)

    @cached_property
    def struck(self) -> frozenset[str]:
        """Ids of the changes and steps that were taken back later than a slip of the finger is, or by another device.

        They are off the record, and what they had voided stays void.
        """
        known = {event.id: event for event in self.events if isinstance(event.body, Changed | StripStep | StripBack)}
        found = ((known.get(event.body.record), event) for event in self._undone)
        return frozenset(made.id for made, back in found if made is not None and not _is_slip(made, back))

    @property
    def _undone(self) -> tuple[Event[Any], ...]:
        """The withdrawals of records that count."""
        return tuple(event for event in self.events if isinstance(event.body, RecordWithdrawn) and not event.refused)

    @property
    def withdrawn_runs(self) -> frozenset[str]:
        """Ids of the leak tests that were removed from their list."""
        return frozenset(event.body.run for event in self.of(RunWithdrawn))

    @cached_property
    def standing(self) -> tuple[Reading, ...]:
        """The readings that stand: corrected and withdrawn ones left out, oldest first."""
        return standing(self.readings)
