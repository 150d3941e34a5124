"""A door lock with a solenoid: a coil, and a contact that closes when locked."""

from __future__ import annotations

from ohmcensus.core.parts.build import closed, fixed, opened, plain, winding
from ohmcensus.core.parts.element import ClosedWhen, Element, contact, load
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Interlock, Nominal, NoRatings, PartCheck, PartKind, Pin, Role
from ohmcensus.core.symptom import Symptom


def _elements(_ratings: NoRatings, nominal: Nominal) -> tuple[Element, ...]:
    return (
        load("coil", "coil_a", "coil_b", nominal("coil"), henry=0.2),
        contact("contact", "c", "out", ClosedWhen("door", frozenset({"locked"}))),
    )


KIND = PartKind(
    kind="lock_solenoid",
    title="Door lock, solenoid",
    traits=plain(Role.INTERLOCK),
    interlock=Interlock("unlocked", "locked"),
    checks=(PartCheck("latch", "Latch and strike", "worn, broken or loose", mechanical=0.4),),
    ratings=NoRatings,
    fault_modes=(
        FaultMode.OPEN,
        FaultMode.SHORT,
        FaultMode.SHORTED_TURNS,
        FaultMode.STUCK_OPEN,
        FaultMode.WELDED,
        FaultMode.BAD_JOINT,
    ),
    priors={FaultMode.OPEN: 0.7, FaultMode.STUCK_OPEN: 1.2, FaultMode.BAD_JOINT: 0.4},
    explains={
        Symptom.NO_START: 0.45,
        Symptom.NO_LOCK: 0.6,
        Symptom.NO_OPEN: 0.4,
        Symptom.CODE: 0.2,
        Symptom.STOPS: 0.1,
    },
    repair_minutes=15.0,
    pins=fixed(Pin("coil_a", "coil 1"), Pin("coil_b", "coil 2"), Pin("c", "common"), Pin("out", "switched")),
    elements=_elements,
    tests=fixed(
        winding("coil", "solenoid coil", ("coil_a", "coil_b"), 30.0, 200.0, "30–200 Ω by type"),
        opened("unlocked", "contact, unlocked", ("c", "out"), "the contact is open while unlocked"),
        closed("locked", "contact, locked", ("c", "out"), sets={"door": "locked"}),
    ),
)
