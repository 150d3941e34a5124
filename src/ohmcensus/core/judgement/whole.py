"""What a reading of the whole machine at its plug resolves: which parts it does not see, which loads it cannot."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from ohmcensus.core.judgement.passes import WHOLE_LINE, insulation_lines_of, named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.machine.coverage import configuration_of, driven, probe_of
from ohmcensus.core.machine.expected import OF_LOWEST_LOAD, lowest_load_ohm
from ohmcensus.core.machine.feeds import fed_part
from ohmcensus.core.machine.moments import states_at_moment
from ohmcensus.core.machine.net import PLUG_L, PLUG_N, nets_of
from ohmcensus.core.machine.netlist import Configuration, PartFault, elements_of, part_modes
from ohmcensus.core.machine.probe import Prediction, Probe, predict
from ohmcensus.core.machine.seen import RESOLVED_WITHIN
from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Role
from ohmcensus.core.quantity import Bound
from ohmcensus.core.sheet import Part, Sheet
from ohmcensus.core.symptom import Moment

# Less than this is no load but a contact, more is none but a path beside one (ours).
LOAD_FROM_OHM, LOAD_TO_OHM = 0.5, 50e3


@dataclass(frozen=True, slots=True)
class LoadHeldOpen:
    """A load that stood at line potential and that a relay or a switch holds open at rest.

    Parameters
    ----------
    part, title
        Which.
    lines
        Ways to read it: from the output that feeds it, lead and all; at its own points where no output sees it. All
        lines of one way are needed.
    least
        What each line reads at least where the load is no short, by line.
    """

    part: str
    title: str
    lines: tuple[tuple[str, ...], ...]
    least: Mapping[str, float] = field(default_factory=dict)

    @property
    def least_ohm(self) -> float:
        """What its first line reads at least."""
        return self.least_of(self.lines[0][0])

    @property
    def typed(self) -> str:
        """What is typed for its first line."""
        return self.lines[0][0].replace(".", " ") + " "

    def least_of(self, line: str) -> float:
        """Return what one of its lines reads at least."""
        return self.least.get(line, math.inf)


@lru_cache(maxsize=64)
def hidden_from_plug(terms: Terms) -> tuple[str, ...]:
    """Return the parts whose leak the whole machine's insulation does not resolve, though mains can come to them.

    A part counts where the sheet lists its own line: a leak of its limit, put into the circuit in the state in which
    the whole is tested, must read at most 1.1 of its limit at the plug. A motor behind an inverter does not.
    """
    whole = named_test(WHOLE_LINE, terms)
    cord = next(iter(terms.sheet.with_role(Role.CORD)), None)
    spec = next((row for row in cord.tests() if row.name == "insulation"), None) if cord else None
    if whole is None or cord is None or spec is None or not terms.sheet.nets:
        return ()
    probe, configuration = probe_of(cord, spec), configuration_of(terms.sheet, cord, spec)
    return tuple(part.id for part in _leaky(terms) if not _is_seen(part.id, probe, configuration, terms))


def _leaky(terms: Terms) -> Iterator[Part]:
    mains = {point.partition(".")[0] for point in nets_of(terms.sheet).mains}
    for part in terms.sheet.parts:
        has_line = bool(insulation_lines_of(part.id, terms))
        if part.id in mains and has_line and FaultMode.LEAK in part_modes(terms.sheet, part.id):
            yield part


def _is_seen(part: str, probe: Probe, configuration: Configuration, terms: Terms) -> bool:
    limit = terms.least_ohm(part)
    shown = predict(terms.sheet, probe, configuration, (PartFault(part, FaultMode.LEAK, limit),))
    return shown.value is not None and shown.bound is Bound.EXACT and shown.value <= RESOLVED_WITHIN * limit


@lru_cache(maxsize=256)
def least_across_ohm(sheet: Sheet, moment: Moment) -> float:
    """Return what line to neutral at the plug reads at least where there is no short.

    Nine tenths of what the model predicts with every load on that stood at line potential at a moment; where no load
    is on then, or nobody knows the moment, nine tenths of the lowest single load.
    """
    lowest = lowest_load_ohm(sheet) or 1.0
    found = [
        shown.value
        for states in states_at_moment(sheet, moment)
        if (shown := _across(sheet, states)).bound is Bound.EXACT and shown.value is not None
    ]
    on = [value for value in found if value < LOAD_TO_OHM]
    return OF_LOWEST_LOAD * min(on, default=lowest)


def _across(sheet: Sheet, states: Mapping[str, str]) -> Prediction:
    pulled = frozenset({"mains_plug"} & sheet.plugs.keys())
    return predict(sheet, Probe(Function.OHM, (PLUG_L, PLUG_N)), Configuration(pulled, states))


@lru_cache(maxsize=256)
def held_open(sheet: Sheet, moment: Moment) -> tuple[LoadHeldOpen, ...]:
    """Return the loads that a moment puts between line and neutral and that rest holds open: the plug is blind."""
    if moment not in _KNOWN:
        return ()
    at_rest = set(driven(sheet, Configuration()).from_line)
    on = {
        part
        for states in states_at_moment(sheet, moment)
        for part in driven(sheet, Configuration(states=states)).from_line
    }
    found = (_load(sheet, part) for part in sheet.parts if part.id in on - at_rest)
    return tuple(load for load in found if load is not None)


_KNOWN = frozenset({Moment.START, Moment.FILLING, Moment.HEATING, Moment.TURNING, Moment.DRAINING})


def _load(sheet: Sheet, part: Part) -> LoadHeldOpen | None:
    """Return a part as a load, with the lines that read it; None where it is none."""
    tests = {test.id: test for test in machine_tests(sheet, 20.0)}
    own = tuple(
        test.id
        for test in tests.values()
        if test.part == part.id
        and test.function is Function.OHM
        and test.window.interval.lo > LOAD_FROM_OHM
        and (test.window.interval.finite_hi or math.inf) < LOAD_TO_OHM
        and set(test.between) <= nets_of(sheet).mains
    )
    if not own or not part.part_kind.is_fed:
        return None
    outputs = tuple(test.id for test in tests.values() if _is_seen_from_board(sheet, test, part))
    least = {name: tests[name].window.interval.lo for name in own}
    for name in outputs:
        test = tests[name]
        shown = predict(
            sheet, Probe(test.function, test.between), Configuration(frozenset({"mains_plug"} & sheet.plugs.keys()))
        )
        least[name] = OF_LOWEST_LOAD * (shown.value if shown.value is not None else test.window.interval.lo)
    # At its own tags a load is read without its lead: only where no output of a board sees both, that is all there is.
    lines = tuple((name,) for name in outputs) or (own,)
    return LoadHeldOpen(part.id, part.title.lower(), lines, least)


def _is_seen_from_board(sheet: Sheet, test: MachineTest, part: Part) -> bool:
    """Tell whether a test reads a load with its lead from the output of the board that feeds it."""
    board = sheet.known_part(test.part)
    if board.traits.role is not Role.BOARD or test.function is not Function.OHM:
        return False
    outputs = [
        row for row in elements_of(sheet, board.id) if row.contact and board.point(row.branches[0].b) in test.between
    ]
    is_across = not any(board.point(row.branches[0].a) in test.between for row in outputs)
    return is_across and any(fed_part(sheet, board.id, row.name) == part.id for row in outputs)
