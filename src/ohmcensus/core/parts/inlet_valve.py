"""A water inlet valve: one coil, two wires, held by plastic."""

from __future__ import annotations

from ohmcensus.core.parts.coil import COIL_FAULT_MODES, COIL_PINS, CoilRatings, coil_test
from ohmcensus.core.parts.expect import common
from ohmcensus.core.parts.kind import PartKind, Pin, TestSpec
from ohmcensus.core.quantity import Unit


class InletValve(PartKind[CoilRatings]):
    """Opens while its coil is energised."""

    kind = "inlet_valve"
    title = "Inlet valve"
    fault_modes = COIL_FAULT_MODES
    ratings = CoilRatings

    def pins(self, ratings: CoilRatings) -> tuple[Pin, ...]:
        """Return the two tags."""
        return COIL_PINS

    def tests(self, ratings: CoilRatings) -> tuple[TestSpec, ...]:
        """Return the coil."""
        if ratings.is_low_supply:
            return (coil_test(common(500.0, 1500.0, Unit.OHM, "0.5–1.5 kΩ for a 120 V valve")),)
        return (coil_test(common(2000.0, 5000.0, Unit.OHM, "2–5 kΩ for a 230 V valve")),)


KIND = InletValve()
