"""A water inlet valve: one coil, two wires, held by plastic."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.coil import CoilKind
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import PartCheck
from ohmcensus.core.symptom import Symptom


class InletValve(CoilKind):
    """Opens while its coil is energised."""

    kind = "inlet_valve"
    title = "Inlet valve"
    at_230 = (2000.0, 5000.0, "2–5 kΩ for a 230 V valve")
    at_120 = (500.0, 1500.0, "0.5–1.5 kΩ for a 120 V valve")
    priors: ClassVar[Mapping[FaultMode, float]] = {
        FaultMode.OPEN: 0.8,
        FaultMode.BAD_JOINT: 0.2,
        FaultMode.LEAK: 0.1,
    }
    checks = (PartCheck("sieve", "Inlet sieve", "sand or scale in it"),)
    repair = "replace the valve"
    tricks = (
        "Plastic threads are begun by hand, backwards until they drop, then on: a crossed one strips.",
        "The sieve behind the hose comes out with flat grips, straight.",
    )
    repair_minutes = 15.0
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.LEAKS: 0.1,
        Symptom.NO_START: 0.05,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.1,
    }
    tools = ("grips for the fill hoses",)


KIND = InletValve()
