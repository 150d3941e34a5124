"""A lid switch: closed with the lid down; never left bypassed."""

from __future__ import annotations

from ohmcensus.core.parts.build import SWITCH_MODES, TWO_TAGS, closed, fixed, opened, plain
from ohmcensus.core.parts.element import ClosedWhen, contact
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Interlock, NoRatings, PartCheck, PartKind, Role
from ohmcensus.core.symptom import Symptom

KIND = PartKind(
    kind="lid_switch",
    title="Lid switch",
    traits=plain(Role.INTERLOCK),
    interlock=Interlock("open", "shut", by_hand=True, closed_at=frozenset({"shut", "locked"})),
    ratings=NoRatings,
    fault_modes=SWITCH_MODES,
    priors={FaultMode.STUCK_OPEN: 1.4, FaultMode.WELDED: 0.1, FaultMode.BAD_JOINT: 0.4},
    explains={Symptom.NO_TURN: 0.4, Symptom.NO_SPIN: 0.5, Symptom.NO_START: 0.35},
    checks=(PartCheck("bypass", "Wires behind the lid switch", "joined: a bypass, an open danger"),),
    cautions=("Never leave a lid switch bypassed: a spinning drum keeps turning.",),
    tricks=("Join its plug before the cabinet or console closes: nothing reaches it afterwards.",),
    repair_minutes=15.0,
    pins=TWO_TAGS,
    elements=lambda _ratings, _nominal: (contact("contact", "a", "b", ClosedWhen("lid", frozenset({"shut"}))),),
    tests=fixed(
        closed(
            "shut",
            "contact, lid shut",
            ("a", "b"),
            sets={"lid": "shut"},
            advice="A click as the lid comes down.",
            minutes=0.5,
        ),
        opened(
            "open",
            "contact, lid open",
            ("a", "b"),
            "open while the lid is up",
            advice="Closed with the lid up is a welded switch, or a bypass behind it.",
            minutes=0.5,
        ),
    ),
)
