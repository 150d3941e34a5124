"""Building a case by hand: events and readings in order, a minute apart unless said."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from ohmcensus.core.case import Case, Reading
from ohmcensus.core.event import Body, Event
from ohmcensus.core.intake import Complaint
from ohmcensus.core.judgement import choose_use
from ohmcensus.core.machine import read_line
from ohmcensus.core.meter import GENERIC_METERS, Meter
from ohmcensus.core.sheet import Sheet

START = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
PROOF = ("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", "source 231")


class Log:
    """A case that grows; ``now`` is the moment of the next thing."""

    def __init__(self, sheet: Sheet) -> None:
        self.case = Case(sheet)
        self.now = START

    def did(self, *bodies: Body) -> Log:
        for body in bodies:
            order = self._next()
            event = Event(f"e{order}", body, self.now.isoformat(), order=order)
            self.case = replace(self.case, events=(*self.case.events, event))
        return self

    def read(self, *lines: str, meter: Meter | None = None) -> Log:
        for text in lines:
            order = self._next()
            line = read_line(text, self.case.sheet, 20.0)
            assert line.test is not None
            meters = [meter] if meter else [GENERIC_METERS[0], GENERIC_METERS[2]]
            use = choose_use(line.reading, line.test, meters, function=line.test.function)
            row = Reading(
                f"r{order}",
                line.between,
                line.test.id,
                use.function,
                use.meter,
                use.indication,
                text,
                20.0 if line.celsius is None else line.celsius,
                at=self.now.isoformat(),
                order=order,
            )
            self.case = replace(self.case, readings=(*self.case.readings, row))
        return self

    def complains(self, complaint: Complaint) -> Log:
        self.case = replace(self.case, complaint=complaint)
        return self

    def wait(self, **span: float) -> Log:
        self.now += timedelta(**span)
        return self

    def _next(self) -> int:
        return 1 + len(self.case.events) + len(self.case.readings)
