"""A lid lock: a coil, a contact that closes when locked, one that closes with the lid down."""

from __future__ import annotations

from ohmcensus.core.parts.build import closed, fixed, opened, plain, winding
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Interlock, Nominal, NoRatings, PartKind, Pin, Role
from ohmcensus.core.symptom import Symptom


def _elements(_ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    return (
        load("coil", "coil_a", "coil_b", nominal("coil"), henry=0.1),
        contact("locked", "c", "locked", ClosedWhen("lid", frozenset({"locked"}))),
        contact("lid", "c", "lid", ClosedWhen("lid", frozenset({"shut", "locked"}))),
    )


KIND = PartKind(
    kind="lid_lock",
    title="Lid lock",
    traits=plain(Role.INTERLOCK),
    interlock=Interlock("unlocked", "locked"),
    ratings=NoRatings,
    fault_modes=(FaultMode.OPEN, FaultMode.SHORT, FaultMode.STUCK_OPEN, FaultMode.WELDED, FaultMode.BAD_JOINT),
    priors={FaultMode.OPEN: 0.6, FaultMode.STUCK_OPEN: 1.3, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_START: 0.4,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.4,
        Symptom.NO_SPIN: 0.4,
        Symptom.CODE: 0.2,
    },
    repair_minutes=15.0,
    pins=fixed(
        Pin("coil_a", "coil 1"),
        Pin("coil_b", "coil 2"),
        Pin("c", "common"),
        Pin("locked", "locked contact"),
        Pin("lid", "lid contact", may_be_free=True),
    ),
    elements=_elements,
    tests=fixed(
        winding("coil", "lock coil", ("coil_a", "coil_b"), 30.0, 200.0, "30–200 Ω by type"),
        closed("locked", "contact, locked", ("c", "locked"), sets={"lid": "locked"}),
        opened("unlocked", "contact, unlocked", ("c", "locked"), "open while unlocked"),
        closed("lid", "lid contact, lid shut", ("c", "lid"), sets={"lid": "shut"}),
    ),
)
