"""Outside the machine, before a panel comes off: the outlet, the cord, and what eye and hand can tell."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.event import Checked, CheckOutcome
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.mains_plug import is_plug_turned_freely
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.sheet import Sheet

# Fractions of the supply: below the first there is no voltage, above the second it is the supply's (ours).
NO_VOLTAGE = 0.1
FULL_VOLTAGE = 0.8
NEUTRAL_NEAR_EARTH_V = 5.0
HALF_FROM, HALF_TO = 0.3, 0.7
# A core end to end, or the cord alone, wants its far ends and so a cover off: not from outside.
AT_PINS = frozenset({"pe", "insulation", "across", "n_pe"})


@dataclass(frozen=True, slots=True)
class EyeCheck:
    """A check by eye or hand: what to look at, and what a bad one may mean for the whole job.

    ``ends_with`` is the sentence with which the job may end there, empty where it goes on. What needs a part is asked
    of a machine only where its sheet has such a one in reach from outside.
    """

    id: str
    title: str
    how: str
    ends_with: str
    needs_part: bool = False


EYE_CHECKS: tuple[EyeCheck, ...] = (
    EyeCheck(
        "protective_devices",
        "Breaker, RCD, plug fuse",
        "All on, the fuse whole? A device that went is closed again once at most.",
        "A fuse or breaker was off; switched on again it holds with the machine running.",
    ),
    EyeCheck(
        "cord",
        "Cord and plug",
        "Bend it along its length while a core is read; look for crushed places, brown pins, a warm plug.",
        "The cord was at fault.",
    ),
    EyeCheck("taps", "Taps and hoses", "Taps open, hoses free of kinks, bulges and rust?", "A tap was shut."),
    EyeCheck(
        "drain_filter",
        "Drain filter",
        "Tray under it, water cold: coins, hair pins, a seized impeller?",
        "The drain filter was blocked: cleaned, it drains.",
        needs_part=True,
    ),
    EyeCheck(
        "strike",
        "Door strike and handle",
        "Strike whole and straight, the door meets the lock without lifting?",
        "The door strike was broken: not electrical.",
        needs_part=True,
    ),
    EyeCheck("standing", "How it stands", "Level, no water under it, no burnt smell, no soot?", ""),
)


class OutletFinding(StrEnum):
    """What three voltages say of an outlet."""

    INCOMPLETE = "incomplete"
    RIGHT = "right"
    CHANGED_OVER = "changed_over"
    DEAD = "dead"
    NO_EARTH = "no_earth"
    NEUTRAL_OPEN = "neutral_open"
    NEUTRAL_DROP = "neutral_drop"
    TURNED = "turned"
    FLOATING = "floating"
    OUT_OF_RANGE = "out_of_range"
    ODD = "odd"


_FINDING_WORDS = {
    OutletFinding.INCOMPLETE: "Three voltages tell polarity and earth.",
    OutletFinding.RIGHT: "Line, neutral and earth are where they should be. Without load a bad joint still shows full "
    "volts.",
    OutletFinding.CHANGED_OVER: "Line and neutral are changed over: what is switched in one pole stays live.",
    OutletFinding.DEAD: "The outlet is dead: look at its fuse, breaker and RCD, and ask whether the machine took "
    "them out.",
    OutletFinding.NO_EARTH: "Earth is not proved: line to earth is not the supply. No power to the machine.",
    OutletFinding.NEUTRAL_DROP: "Neutral stands above earth: read it again under load; a bad neutral joint shows so.",
    OutletFinding.TURNED: "Line, neutral and earth are where they should be, the plug the other way round: both ways "
    "are right.",
    OutletFinding.NEUTRAL_OPEN: "Line is there, neutral is open: the fault is in the supply.",
    OutletFinding.FLOATING: "Half and half against earth: an isolated supply, or an earth that is open. An RCD may be "
    "blind here; check against an independent earth.",
    OutletFinding.OUT_OF_RANGE: "The supply is outside ±10 %: the fault may be there.",
    OutletFinding.ODD: "These three voltages do not fit together: read them again.",
}


@dataclass(frozen=True, slots=True)
class OutletVerdict:
    """A finding in words, and the sentence with which it may end the job."""

    finding: OutletFinding
    words: str
    ends_with: str


def conclude_outlet(
    ln_v: float | None, le_v: float | None, ne_v: float | None, nominal_v: float, *, is_reversible: bool = False
) -> OutletVerdict:
    """Conclude on an outlet from its voltages.

    Parameters
    ----------
    ln_v, le_v, ne_v
        Line to neutral, line to earth, neutral to earth in volts; None where not read yet. "Line" is
        the contact where the plan says so.
    nominal_v
        Rated supply, one earthed neutral assumed.
    is_reversible
        Whether the plug goes in either way round: then line and neutral may change places.
    """
    finding = _finding(ln_v, le_v, ne_v, nominal_v)
    if finding is OutletFinding.CHANGED_OVER and is_reversible:
        finding = OutletFinding.TURNED
    ends = {
        OutletFinding.DEAD: "The outlet is dead.",
        OutletFinding.NEUTRAL_OPEN: "The outlet has no neutral.",
    }.get(finding, "")
    return OutletVerdict(finding, _FINDING_WORDS[finding], ends)


def _finding(ln_v: float | None, le_v: float | None, ne_v: float | None, nominal_v: float) -> OutletFinding:
    """Return the first finding that the voltages fit: is it dead, is it earthed, is its neutral sound, how high is it.

    A voltage to earth that is neither the supply's nor next to nothing comes through a meter, not from an earth.
    """
    none, full = NO_VOLTAGE * nominal_v, FULL_VOLTAGE * nominal_v
    if ln_v is None or le_v is None or ne_v is None:
        is_dead = ln_v is not None and le_v is not None and max(ln_v, le_v) < none
        return OutletFinding.DEAD if is_dead else OutletFinding.INCOMPLETE
    fits = (
        (max(ln_v, le_v, ne_v) < none, OutletFinding.DEAD),
        (ln_v < none and le_v >= full, OutletFinding.NEUTRAL_OPEN),
        (ln_v < none, OutletFinding.ODD),
        (_is_half(le_v, ln_v) and _is_half(ne_v, ln_v), OutletFinding.FLOATING),
        (min(le_v, ne_v) >= full, OutletFinding.ODD),
        (max(le_v, ne_v) < full or min(le_v, ne_v) >= none, OutletFinding.NO_EARTH),
        (min(le_v, ne_v) > NEUTRAL_NEAR_EARTH_V, OutletFinding.NEUTRAL_DROP),
        (abs(ln_v - nominal_v) > SUPPLY_TOLERANCE * nominal_v, OutletFinding.OUT_OF_RANGE),
        (le_v >= full, OutletFinding.RIGHT),
        (ne_v >= full, OutletFinding.CHANGED_OVER),
    )
    return next((finding for fit, finding in fits if fit), OutletFinding.ODD)


def _is_half(volts: float, supply: float) -> bool:
    """Tell whether a voltage is about half of the supply's."""
    return HALF_FROM * supply <= volts <= HALF_TO * supply


def outlet_verdict(case: Case) -> OutletVerdict:
    """Conclude on the outlet from the readings that stand on its lines."""
    latest = {reading.test: reading for reading in case.standing}
    part = next((part.id for part in case.sheet.with_role(Role.OUTLET)), "outlet")
    volts = [_volts(latest.get(f"{part}.{name}")) for name in ("ln", "le", "ne")]
    is_reversible = is_plug_turned_freely(case)
    return conclude_outlet(volts[0], volts[1], volts[2], case.sheet.volts, is_reversible=is_reversible)


def outside_tests(case: Case) -> tuple[str, ...]:
    """Return the ids of the readings made from outside: the outlet's, and those at the pins of the pulled plug."""
    return tuple(
        f"{part.id}.{test.name}"
        for part in case.sheet.parts
        for test in part.tests()
        if part.traits.role is Role.OUTLET or (part.traits.role is Role.CORD and test.name in AT_PINS)
    )


def eye_checks(case: Case) -> tuple[tuple[EyeCheck, Checked | None], ...]:
    """Return the checks that the machine asks for, with their latest outcomes; what was answered stays."""
    latest = {event.body.check: event.body for event in case.of(Checked)}
    return tuple(
        (check, latest.get(check.id)) for check in EYE_CHECKS if check.id in latest or _is_asked(check, case.sheet)
    )


def _is_asked(check: EyeCheck, sheet: Sheet) -> bool:
    """Tell whether a check makes sense on a machine; a sheet that lists no part for eye and hand lacks none for that.

    A drain filter beneath the base of a top-loader, or the strike of a lid that has none, is nothing for a first look.
    """
    listed = sheet.with_role(Role.MECHANICAL)
    in_reach = (part for part in listed if part.behind is None and check.id in part.part_kind.seen_outside)
    return not check.needs_part or not listed or any(in_reach)


def is_begun(case: Case) -> bool:
    """Tell whether anything outside the machine was looked at."""
    looked = any(state is not None and state.outcome is not CheckOutcome.NOT_SEEN for _, state in eye_checks(case))
    return looked or any(reading.test in outside_tests(case) for reading in case.standing)


def _volts(reading: Reading | None) -> float | None:
    return None if reading is None else reading.indication.value
