"""Building a case by hand: events and readings in order, a minute apart unless said."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

from ohmcensus.core.event import Body, Event, PluggedIn
from ohmcensus.core.intake import Complaint
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement import choose_use
from ohmcensus.core.machine import read_line
from ohmcensus.core.machine.dead_tests import points
from ohmcensus.core.meter import GENERIC_METERS, Function, Meter
from ohmcensus.core.safety import Safety, safety_at
from ohmcensus.core.safety.series import is_dangerous
from ohmcensus.core.sheet import Sheet

START = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
PROOF = ("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", "source 231")


def proof_of(sheet: Sheet) -> tuple[str, ...]:
    """Return the series that proves a machine dead, the points of its sheet in it."""
    volts = f"source {sheet.volts + 1:g}"
    charges = [test.id.replace(".", " ") for test in points(sheet)][3:]
    direct = ["source dc 9.3"] if any(is_dangerous(line.replace(" ", "."), sheet) for line in charges) else []
    return (volts, "dead ln 0.2", "dead le 0.1", "dead ne 0.1", *direct, *(f"{line} 0.3" for line in charges), volts)


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
            line = read_line(text, self.case.sheet)
            meters = [meter] if meter else [GENERIC_METERS[0], GENERIC_METERS[2]]
            function = line.test.function if line.test else Function.OHM
            use = choose_use(line.reading, line.test, meters, function=function)
            row = Reading(
                f"r{order}",
                line.between,
                line.test.id if line.test else None,
                use.function,
                use.meter,
                use.indication,
                text,
                20.0 if line.celsius is None else line.celsius,
                at=self.now.isoformat(),
                order=order,
                loose=line.loose,
                inhand=line.inhand,
                is_celsius_stated=line.celsius is not None,
                condition=line.condition,
            )
            self.case = replace(self.case, readings=(*self.case.readings, row))
        return self

    @property
    def safety(self) -> Safety:
        return safety_at(self.case, self.now)

    def plugged(self) -> Log:
        return self.did(PluggedIn())

    def complains(self, complaint: Complaint) -> Log:
        self.case = replace(self.case, complaint=complaint)
        return self

    def wait(self, **span: float) -> Log:
        self.now += timedelta(**span)
        return self

    def _next(self) -> int:
        return 1 + len(self.case.events) + len(self.case.readings)
