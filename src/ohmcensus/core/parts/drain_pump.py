"""The drain pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from ohmcensus.core.parts.coil import COIL_FAULT_MODES, COIL_PINS, CoilRatings, coil_test
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.kind import PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit


class DrainPump(PartKind[CoilRatings]):
    """Two wires in plastic: shorts line to neutral, leaks to earth only when wet."""

    kind = "drain_pump"
    title = "Drain pump"
    fault_modes = COIL_FAULT_MODES
    ratings = CoilRatings

    def pins(self, ratings: CoilRatings) -> tuple[Pin, ...]:
        """Return the two tags."""
        return COIL_PINS

    def tests(self, ratings: CoilRatings) -> tuple[TestSpec, ...]:
        """Return the coil."""
        if ratings.is_low_supply:
            return (coil_test(common(10.0, 40.0, Unit.OHM, "10–40 Ω for a 120 V pump")),)
        return (coil_test(common(100.0, 250.0, Unit.OHM, "100–250 Ω for a 230 V pump")),)


KIND = DrainPump()
