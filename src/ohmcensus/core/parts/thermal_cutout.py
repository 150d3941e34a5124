"""A thermal cut-out: closed until it has been too hot once."""

from __future__ import annotations

from dataclasses import replace

from ohmcensus.core.parts.build import TWO_TAGS, closed, fixed, plain
from ohmcensus.core.parts.element import contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import NoRatings, PartKind, Role
from ohmcensus.core.symptom import Symptom

KIND = PartKind(
    kind="thermal_cutout",
    title="Thermal cut-out",
    traits=replace(plain(Role.PROTECTOR), governs_heat=True),
    ratings=NoRatings,
    fault_modes=(FaultMode.OPEN, FaultMode.BAD_JOINT, FaultMode.WELDED),
    priors={FaultMode.OPEN: 0.9, FaultMode.BAD_JOINT: 0.3},
    explains={Symptom.NO_HEAT: 0.35, Symptom.DEAD: 0.1, Symptom.STOPS: 0.1, Symptom.OVERHEATS: 0.1},
    repair_minutes=15.0,
    pins=TWO_TAGS,
    elements=lambda _ratings, _nominal: (contact("contact", "a", "b", None, ohm=0.03),),
    tests=fixed(
        closed(
            "cold",
            "contact, cold",
            ("a", "b"),
            minutes=0.7,
            advice="Below its temperature; one that opened for good has done its work: find the heat.",
        )
    ),
)
