"""The readings that prove a machine dead: a known source, the supply terminals, every stored charge.

Limits are ours: at most 5 V AC between the supply terminals, at most 10 V DC on every capacitor; the
known source must show at least 50 V, so that a meter that is off or on a wrong range is found out. A charge that can
hurt asks that the same meter showed a DC source too: its DC range is another circuit than its AC range.
"""

from __future__ import annotations

from functools import lru_cache

from ohmcensus.core.machine.tests import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState, StoredCharge
from ohmcensus.core.quantity import Interval, Unit
from ohmcensus.core.quantity.window import Source, Window
from ohmcensus.core.sheet import Part, Sheet

TERMINALS_V = 5.0
CHARGE_V = 10.0
KNOWN_SOURCE_V = 50.0
KNOWN_SOURCE_DC_V = 5.0
SOURCE, SOURCE_DC = "source.known", "source.dc"
SUPPLY_PAIRS = ("dead.ln", "dead.le", "dead.ne")

_TERMINAL_PAIRS = (("ln", "L to N", "l", "n"), ("le", "L to E", "l", "pe"), ("ne", "N to E", "n", "pe"))


def stored_charges(sheet: Sheet) -> tuple[tuple[Part, StoredCharge], ...]:
    """Return every capacitor of a machine that may stay charged, with its part."""
    return tuple((part, charge) for part in sheet.parts for charge in part.part_kind.stored_charges(part.ratings))


@lru_cache(maxsize=64)
def dead_tests(sheet: Sheet) -> tuple[MachineTest, ...]:
    """Return the readings that prove a machine dead, in their order; the known source comes first and last."""
    ends = ("source.a", "source.b")
    source = _test(SOURCE, "Known source", "shows its voltage", ends, Function.VOLTS_AC)
    direct = _test(SOURCE_DC, "Known source", "DC, a 9 V block", ends, Function.VOLTS_DC)
    return (source, direct, *_terminal_tests(sheet), *_charge_tests(sheet))


def points(sheet: Sheet) -> tuple[MachineTest, ...]:
    """Return the points that must read dead, the known sources left out."""
    return tuple(test for test in dead_tests(sheet) if test.part != "source")


@lru_cache(maxsize=64)
def charges_by_point(sheet: Sheet) -> dict[str, StoredCharge]:
    """Return the capacitor behind each DC point of the proof, by the id of the test."""
    tests = _charge_tests(sheet)
    return {test.id: charge for test, (_, charge) in zip(tests, stored_charges(sheet), strict=True)}


def _terminal_tests(sheet: Sheet) -> list[MachineTest]:
    """Return the three pairs of supply terminals."""
    stated = sheet.terminals
    points = stated.model_dump() if stated else {"l": "supply.l", "n": "supply.n", "pe": "supply.pe"}
    return [
        _test(f"dead.{name}", "Prove dead", title, (points[a], points[b]), Function.VOLTS_AC)
        for name, title, a, b in _TERMINAL_PAIRS
    ]


def _charge_tests(sheet: Sheet) -> list[MachineTest]:
    """Return one DC reading for each capacitor; a part with more than one numbers them."""
    found, counted = [], dict[str, int]()
    for part, charge in stored_charges(sheet):
        counted[part.id] = counted.get(part.id, 0) + 1
        number = f"_{counted[part.id]}" if counted[part.id] > 1 else ""
        between = (f"{part.id}.{charge.between[0]}", f"{part.id}.{charge.between[1]}")
        title = f"{part.title}, {charge.title}"
        found.append(_test(f"dead.{part.id}{number}", "Prove dead", title, between, Function.VOLTS_DC))
    return found


def _test(test_id: str, part_title: str, title: str, between: tuple[str, str], function: Function) -> MachineTest:
    """Build one reading of the proof."""
    part, _, name = test_id.partition(".")
    is_source = part == "source"
    is_ac = function is Function.VOLTS_AC
    limit, least = (TERMINALS_V, KNOWN_SOURCE_V) if is_ac else (CHARGE_V, KNOWN_SOURCE_DC_V)
    span = Interval(least) if is_source else Interval(-limit, limit)
    rule = f"a known source shows at least {least:g} V" if is_source else f"proved dead at most {limit:g} V"
    return MachineTest(
        id=test_id,
        part=part,
        part_title=part_title,
        name=name,
        title=title,
        aliases=(title.replace(" to ", "-"),) if not is_source else (),
        between=between,
        function=function,
        weaker=None,
        window=Window(span, Unit.VOLT, Source.COMMON, rule, words="" if is_source else f"at most {limit:g} V"),
        blind_to=(),
        state=MachineState.LIVE if is_source else MachineState.UNPLUGGED,
        minutes=0.3,
        advice="",
        touches_chassis=False,
        behind=None,
        load_volts=None,
    )


def is_proof(test_id: str | None) -> bool:
    """Tell whether a reading belongs to the proof of dead rather than to the census sheet."""
    return test_id is not None and test_id.partition(".")[0] in {"dead", "source"}
