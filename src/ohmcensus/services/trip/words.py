"""What the isolation screen says in words: bounds, limits, the next run, the state of the circuit."""

from __future__ import annotations

from ohmcensus.core.parts.kind import Role
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.advice import Advice, AdviceKind
from ohmcensus.core.trip.isolate import Isolation, State
from ohmcensus.core.trip.problem import Problem


def refused_words(problem: Problem) -> str:
    """Say why there is no verdict."""
    if not problem.is_earth_ok:
        return "The protective conductor failed: no leakage verdict before it passes."
    return "The neutral is not earthed here: currents of two live poles can cancel. Use the insulation tester."


def spread_words(found: Isolation, titles: dict[str, str]) -> str:
    """Say that the leak is spread, and who has how much of it; empty where it is not."""
    if not found.is_spread:
        return ""
    shares = sorted((found.shares or {}).items(), key=lambda row: -row[1].hi)
    said = ", ".join(f"{titles[part]} {share.lo:.0%} to {share.hi:.0%}" for part, share in shares[:4] if part in titles)
    return f"Every part is under its limit, the whole is over: the leak is spread. {said}."


def reason_words(sheet: Sheet, told: Advice, found: Isolation, *, is_plugging_in: bool) -> str:
    """Say why a proposal does not begin where one expects it to; empty where it does."""
    if not is_plugging_in or told.kind is not AdviceKind.TEST or found.next is None:
        return ""
    before = {part.id for part in sheet.with_role(Role.CORD, Role.FILTER)}
    is_open = any(found.parts[part].state is State.OPEN for part in before if part in found.parts)
    connected = set(found.next.connected)
    if not is_open or connected <= before:
        return ""
    if before <= connected or not connected & before:
        where = "stay in" if before <= connected else "are out of"
        return f"It goes on plugging in: cord and filter {where} this test, which parts them from all the rest."
    return "It goes on plugging in: of cord and filter one is in this test, one is out of it."
