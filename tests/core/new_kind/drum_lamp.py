"""A kind of part that no other module has heard of: a lamp in the drum, its driver on electronics."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.build import TWO_TAGS, electronic, winding
from ohmcensus.core.parts.element import CHASSIS, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import NoRatings, PartKind, Role, Waves
from ohmcensus.core.parts.to_earth import to_earth
from ohmcensus.core.symptom import Symptom

KIND = PartKind(
    kind="drum_lamp",
    title="Drum lamp",
    traits=replace(electronic(Role.LOAD), waves=Waves.INVERTED),
    ratings=NoRatings,
    fault_modes=(FaultMode.OPEN, FaultMode.LEAK),
    priors={FaultMode.OPEN: 3.0},
    explains={Symptom.STOPS: 0.9},
    pins=TWO_TAGS,
    elements=lambda _ratings, nominal: (load("lamp", "a", "b", nominal("lamp")),),
    tests=lambda _ratings: (
        winding("lamp", "lamp", ("a", "b"), 700.0, 900.0, "700–900 Ω"),
        to_earth(("a", CHASSIS), (FaultMode.OPEN,), "Wet it leaks."),
    ),
)
