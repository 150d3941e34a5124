"""What to do next in an isolation: a leak test, a repair first, the plug the other way round, or nothing."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ohmcensus.core.parts.kind import Role
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.trip.isolate import Isolation, State
from ohmcensus.core.trip.planner import off_now
from ohmcensus.core.trip.problem import Method, Problem


class AdviceKind(StrEnum):
    """What there is to do."""

    TEST = "test"
    AS_IT_STANDS = "as_it_stands"
    REPLACE = "replace"
    CONFIRM = "confirm"
    TURN_PLUG = "turn_plug"
    INSULATION = "insulation"
    DRY = "dry"
    SOUND = "sound"
    NOTHING = "nothing"


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do, and which parts it is about."""

    kind: AdviceKind
    parts: tuple[str, ...] = ()


def advice(
    sheet: Sheet,
    problem: Problem,
    found: Isolation,
    *,
    turns: bool | None = None,
    convicted: frozenset[str] | None = None,
) -> Advice:
    """Return what to do next; never a leak test that changes nothing where the rest cannot be asked.

    Parameters
    ----------
    sheet
        The machine's type: a guilty cord or filter that is off takes the supply from all the rest.
    problem, found
        The isolation, and what it proved.
    turns
        Whether the plug can be turned; None as the type has it.
    convicted
        Parts of which leak tests prove a leak; None for all that are guilty.
    """
    if found.conflict or found.is_refused:
        return Advice(AdviceKind.NOTHING)
    guilty = found.guilty
    if found.next is not None:
        pull = found.next
        if (
            not problem.runs
            or problem.is_whole_untested
            or problem.is_changed
            or pull.is_at_part
            or pull.pull
            or pull.refit
        ):
            return Advice(AdviceKind.TEST)
        off = off_now(problem)
        before = {part.id for part in sheet.with_role(Role.CORD, Role.FILTER)}
        blocked = tuple(part for part in guilty if part in before & off)
        if blocked:
            return Advice(AdviceKind.REPLACE, blocked)
        return Advice(AdviceKind.AS_IT_STANDS, tuple(part.id for part in problem.parts if part.id in off))
    can_turn = sheet.is_plug_reversible if turns is None else turns
    told = _when_nothing_is_planned(problem, found, guilty, can_turn=can_turn)
    if told.kind is AdviceKind.REPLACE and convicted is not None and not convicted & {*guilty}:
        return Advice(AdviceKind.CONFIRM, guilty)
    return told


def _when_nothing_is_planned(problem: Problem, found: Isolation, guilty: tuple[str, ...], *, can_turn: bool) -> Advice:
    is_open = any(found.parts[part.id].state is State.OPEN for part in problem.present)
    if is_open and problem.method is Method.LEAKAGE and one_way(problem):
        return Advice(AdviceKind.TURN_PLUG if can_turn else AdviceKind.INSULATION)
    if guilty:
        return Advice(AdviceKind.REPLACE, guilty)
    if found.unhealthy:
        return Advice(AdviceKind.DRY, found.unhealthy)
    if found.is_spread:
        return Advice(AdviceKind.NOTHING)
    return Advice(AdviceKind.NOTHING if is_open or not problem.counted else AdviceKind.SOUND)


def one_way(problem: Problem) -> list[str]:
    """Return the runs whose current was read with the plug one way round only."""
    ways: dict[object, dict[object, str]] = {}
    for run in problem.counted:
        if run.polarity is not None:
            ways.setdefault((run.connected, run.maybe), {})[run.polarity] = run.id
    return [name for found in ways.values() if len(found) == 1 for name in found.values()]
