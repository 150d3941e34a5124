"""What has to be done before a test can be made: safety, covers, plugs."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import uncovered
from ohmcensus.core.machine.asked import RUN, looks
from ohmcensus.core.machine.at_plug import cover_of
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.parts.kind import MachineState, TestSpec
from ohmcensus.core.safety import SafetyState
from ohmcensus.core.sheet import Part

_POWERED = frozenset({SafetyState.LIVE, SafetyState.UNDER_VOLTAGE})


def safety_before(case: Case, test: str, state: SafetyState) -> list[str]:
    """Return what Safe asks for first, empty where the machine stands as the test needs it.

    Parameters
    ----------
    case
        Sheet and everything observed.
    test
        Id of a test, a look or the run.
    state
        State of safety now.
    """
    part, spec = _asked(case, test)
    if test == RUN:
        return [] if state in _POWERED else ["Plug it in, panels shut"]
    if spec is not None and spec.state is MachineState.LIVE:
        if part is not None and part.behind is not None:
            return [] if state is SafetyState.LIVE else ["Enter live mode, with its reason"]
        return [] if state in _POWERED else ["Plug it in, panels shut"]
    if spec is not None and spec.function.needs_dead_circuit and state is not SafetyState.DEAD:
        return ["Prove it dead"]
    return []


def setting_up(case: Case, test: str) -> list[str]:
    """Return covers and plugs that come off for a test, and what the machine is set to."""
    return list(_setting_up(case, test))


def _setting_up(case: Case, test: str) -> Iterator[str]:
    part, spec = _asked(case, test)
    if part is None:
        return
    opened = uncovered(case)
    behind = part.behind if spec is None else cover_of(part, spec)
    panel = case.sheet.panels.get(behind or "")
    if panel is not None and behind not in opened:
        yield panel.off_words
    if spec is None:
        return
    if spec.is_bare:
        yield "Every plug off"
    elif spec.state is MachineState.PLUG_PULLED:
        yield from (f"Pull: {plug.title}" for plug in case.sheet.plugs.values() if part.id in plug.parts)
    wanted = {name: value for name, value in spec.sets.items() if value in case.sheet.states.get(name, ())}
    yield from (f"{name.replace('_', ' ').capitalize()}: {value}" for name, value in wanted.items())


def _asked(case: Case, test: str) -> tuple[Part | None, TestSpec | None]:
    """Return whose test it is, and which; no test for a look, no part for a run."""
    known = looks(case.sheet)
    if test in known:
        return known[test][0], None
    part_id, _, name = test.partition(".")
    part = case.sheet.part(part_id)
    return part, next((row for row in listed_tests(case.sheet, part_id) if row.name == name), None) if part else None
