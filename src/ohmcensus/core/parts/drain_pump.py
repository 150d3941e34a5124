"""The drain pump: a synchronous motor held by plastic, two wires."""

from __future__ import annotations

from ohmcensus.core.parts.coil import CoilKind


class DrainPump(CoilKind):
    """Two wires in plastic: shorts line to neutral, leaks to earth only when wet."""

    kind = "drain_pump"
    title = "Drain pump"
    at_230 = (100.0, 250.0, "100–250 Ω for a 230 V pump")
    at_120 = (10.0, 40.0, "10–40 Ω for a 120 V pump")


KIND = DrainPump()
