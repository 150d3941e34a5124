"""A float in the base that stops the machine when water stands there."""

from __future__ import annotations

from ohmcensus.core.parts.build import SWITCH_MODES, TWO_TAGS, closed, fixed, opened, plain
from ohmcensus.core.parts.element import ClosedWhen, contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import NoRatings, PartCheck, PartKind, Role
from ohmcensus.core.symptom import Symptom

KIND = PartKind(
    kind="leak_float",
    title="Leak float",
    traits=plain(Role.SENSOR),
    ratings=NoRatings,
    fault_modes=SWITCH_MODES,
    priors={FaultMode.STUCK_OPEN: 0.3, FaultMode.BAD_JOINT: 0.2},
    explains={Symptom.DEAD: 0.05, Symptom.STOPS: 0.15, Symptom.CODE: 0.2, Symptom.NO_START: 0.1},
    checks=(PartCheck("base", "Base tray", "water standing in it"),),
    repair_minutes=15.0,
    pins=TWO_TAGS,
    elements=lambda _ratings, _nominal: (contact("contact", "a", "b", ClosedWhen("float", frozenset({"down"}))),),
    tests=fixed(
        closed("dry", "contact, base dry", ("a", "b"), minutes=0.5),
        opened(
            "lifted", "contact, float lifted", ("a", "b"), "opens when lifted", sets={"float": "lifted"}, minutes=0.5
        ),
    ),
)
