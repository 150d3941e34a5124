"""A water inlet valve: one coil, two wires, held by plastic."""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar

from ohmcensus.core.parts.coil import CoilKind
from ohmcensus.core.symptom import Symptom


class InletValve(CoilKind):
    """Opens while its coil is energised."""

    kind = "inlet_valve"
    title = "Inlet valve"
    at_230 = (2000.0, 5000.0, "2–5 kΩ for a 230 V valve")
    at_120 = (500.0, 1500.0, "0.5–1.5 kΩ for a 120 V valve")
    explains: ClassVar[Mapping[Symptom, float]] = {
        Symptom.LEAKS: 0.1,
        Symptom.NO_START: 0.05,
        Symptom.STOPS: 0.1,
        Symptom.CODE: 0.1,
    }
    tools = ("grips for the fill hoses",)


KIND = InletValve()
