"""What to ask next: the test that settles most a minute, from where the machine stands now."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.diagnosis.battery import along_with
from ohmcensus.core.diagnosis.conclusion import Conclusion, Standing, conclude
from ohmcensus.core.diagnosis.effort import SAME_PLACE_MINUTES, Place, efforts
from ohmcensus.core.diagnosis.outcomes import Array, OutcomeTable
from ohmcensus.core.diagnosis.posterior import SLIP, Diagnosis
from ohmcensus.core.diagnosis.repeat import repeats
from ohmcensus.core.machine.asked import LIVE_PENALTY_MINUTES, LOOK, RUN
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.sheet import Sheet

# Taking up the meter, finding the points: what every question costs besides; a cover that is off serves the next
# questions too, so only a share of it counts when questions are compared (ours, after trying 0.5 to 2 and 0.5 to 1).
HANDLING_MINUTES, COVER_SHARE = 2.0, 0.5
# Moving the probes on where one stands.
SAME_PLACE_HANDLING = 0.5
# Reading what is stamped on a part (ours).
PLATE_MINUTES = 1.0
# Less than this and a test settles nothing.
LEAST_BITS = 0.01
# Minutes of taking off covers count so many times for whoever wants to take off few.
DISMANTLING_FACTOR = 5.0
# What a minute costs against spares, in the currency of the firm (ours, a setting).
MINUTE_COST = 1.0
_MERGED = 3


class Objective(StrEnum):
    """What the next question is chosen for."""

    SOONEST = "soonest"
    CHEAPEST = "cheapest"
    LEAST_DISMANTLING = "least_dismantling"
    LIKELIEST_FIRST = "likeliest_first"

    @property
    def words(self) -> str:
        """The objective in words."""
        return _OBJECTIVE_WORDS[self]


_OBJECTIVE_WORDS = {
    Objective.SOONEST: "soonest certain",
    Objective.CHEAPEST: "cheapest expected repair",
    Objective.LEAST_DISMANTLING: "least dismantling",
    Objective.LIKELIEST_FIRST: "likeliest first",
}


@dataclass(frozen=True)
class Reach:
    """Where the machine stands now, and what cannot be asked.

    Parameters
    ----------
    open_panels
        Covers that are off.
    cover_minutes
        What covers take to come off, where that is not the sheet's own figure.
    left_out
        Tests that are not asked as new: made, or barred.
    barred
        Tests that cannot be made: left out by whoever works there, out of reach, without a meter.
    stamped
        Parts of which plate or stamp was read.
    place
        Where the last test was made, with its plug off and the meter in hand; None where nobody stands anywhere.
    live_penalty
        Minutes that a live test behind a cover counts on top.
    has_power
        Whether the machine may be powered at all.
    before_power
        Tests that must pass before there may be power, where there may be none.
    to_live, to_dead
        Minutes from the machine's state of safety to power, and to proved dead; a share of them counts, as of covers.
    minute_cost
        What a minute of work costs, against spares.
    """

    open_panels: frozenset[str] = frozenset()
    cover_minutes: Mapping[str, float] = field(default_factory=dict)
    left_out: frozenset[str] = frozenset()
    barred: frozenset[str] = frozenset()
    stamped: frozenset[str] = frozenset()
    place: Place | None = None
    live_penalty: float = LIVE_PENALTY_MINUTES
    has_power: bool = True
    before_power: frozenset[str] = frozenset()
    to_live: float = 0.0
    to_dead: float = 0.0
    minute_cost: float = MINUTE_COST


class Asks(StrEnum):
    """What is done to answer a question."""

    TEST = "test"
    LOOK = "look"
    RUN = "run"
    PLATE = "plate"


@dataclass(frozen=True, slots=True)
class Question:
    """A test that may be made next.

    Parameters
    ----------
    test
        Its id.
    part
        Whose.
    minutes, reach_minutes
        For the test, and for covers and plugs before it.
    bits
        What it is expected to settle of the repair.
    score
        By the objective, the greatest first; infinite where a guard asks for it before a part is named.
    is_repeat
        Whether it was asked before, and a second reading is worth more than another test.
    rating
        What is to be read on a plate or a stamp; empty where it is none.
    also
        Tests that are made in the same go, their minutes counted.
    """

    test: str
    part: str
    minutes: float
    reach_minutes: float
    bits: float
    score: float
    is_repeat: bool = False
    rating: str = ""
    also: tuple[str, ...] = ()

    @property
    def kind(self) -> Asks:
        """What is done to answer it."""
        if self.rating:
            return Asks.PLATE
        return Asks.RUN if self.test == RUN else Asks.LOOK if is_look(self.test) else Asks.TEST


@dataclass(frozen=True)
class _Asked:
    """Tests of a sheet side by side: outcomes in columns [hypothesis, column] and where each test begins."""

    names: tuple[str, ...]
    outcomes: Array = field(repr=False)
    begins: NDArray[np.intp] = field(repr=False)
    minutes: Array = field(repr=False)
    plugs: Array = field(repr=False)
    is_live: NDArray[np.bool_] = field(repr=False)
    is_look: NDArray[np.bool_] = field(repr=False)
    panels: tuple[str | None, ...] = ()
    places: tuple[Place | None, ...] = ()


def questions(
    diagnosis: Diagnosis,
    reach: Reach,
    objective: Objective = Objective.SOONEST,
    *,
    prices: Mapping[str, float] | None = None,
    least_bits: float = LEAST_BITS,
) -> tuple[Question, ...]:
    """Return the tests that settle something, the best first.

    Parameters
    ----------
    diagnosis
        What is believed.
    reach
        Where the machine stands.
    objective
        What is wanted.
    prices
        Price of a part where it is not the sheet's own, by part.
    least_bits
        What a test must settle to be listed.

    Notes
    -----
    Information I = H(repair) + H(outcome) − H(repair, outcome) in bits; by default the most of it a minute. The
    columns of all tests stand side by side, so that one product of matrices gives the chance of each group of repairs
    with each answer. Told apart are repairs, not faults: what mends with the same part need not be separated.
    """
    table = diagnosis.table
    asked = _asked(table)
    here = np.array([place is not None and place == reach.place for place in asked.places])
    minutes = np.where(here, np.minimum(asked.minutes, SAME_PLACE_MINUTES), asked.minutes)
    plugs = np.where(here, 0.0, asked.plugs)
    handling = np.where(here, SAME_PLACE_HANDLING, HANDLING_MINUTES)
    joint = (table.in_group * diagnosis.chance) @ asked.outcomes
    bits = _information(diagnosis, joint, asked)
    covers = np.array([_cover_minutes(table.sheet, panel, reach) for panel in asked.panels])
    covers = covers + np.where(asked.is_live, reach.to_live, np.where(asked.is_look, 0.0, reach.to_dead))
    # What is shown is the whole way to the test; what counts when tests are compared is a share of the covers, since
    # the next questions will use an open cover too. One step ahead a cover is never worth it otherwise.
    reaching = covers + plugs
    needs_panel = np.array([panel is not None for panel in asked.panels])
    penalty = np.where(asked.is_live & needs_panel, reach.live_penalty, 0.0)
    spent = handling + minutes + plugs + penalty
    score = bits / (spent + COVER_SHARE * covers)
    # Where power is refused, the tests that would allow it are worth what they open, and not only what they settle:
    # else the search would stay among dead tests that settle little.
    if not reach.has_power:
        score = np.maximum(score, _unlocking(diagnosis, asked, bits, spent + COVER_SHARE * covers, reach))
    if objective is Objective.LEAST_DISMANTLING:
        score = bits / (spent + DISMANTLING_FACTOR * covers)
    # Money decides, minutes break ties: without the small share equal savings would come in the order of names.
    if objective is Objective.CHEAPEST:
        saved = _saving(table, joint, asked, prices or {}, reach.minute_cost) - reach.minute_cost * (spent + covers)
        score = score * 1e-3 + saved
    if objective is Objective.LIKELIEST_FIRST:
        score = score + _FIRST * _chance_of(diagnosis, asked.names)
    wanted = np.flatnonzero((bits >= least_bits) & (~asked.is_live | reach.has_power))
    rows = [
        Question(name, _part(name), float(minutes[i]), float(reaching[i]), float(bits[i]), float(score[i]))
        for i in wanted.tolist()
        if (name := asked.names[i]) not in reach.left_out
    ]
    return tuple(sorted(rows, key=lambda row: (-row.score, row.test)))


def _unlocking(diagnosis: Diagnosis, asked: _Asked, bits: Array, cost: Array, reach: Reach) -> Array:
    """Return what the tests before power are worth with the best live test that they allow, nought for all others.

    They allow none where something leaks to earth.
    """
    opens = np.array([name in reach.before_power and name not in reach.left_out for name in asked.names])
    barred = np.flatnonzero(asked.is_live & ~np.array([name in reach.left_out for name in asked.names]))
    if not opens.any() or not barred.size:
        return np.zeros(bits.size)
    best = barred[int(np.argmax(bits[barred] / cost[barred]))]
    leaks = np.array([FaultMode.LEAK in row.modes for row in diagnosis.table.hypotheses])
    passes = float(diagnosis.chance[~leaks].sum())
    worth = (bits[opens].sum() + passes * bits[best]) / (cost[opens].sum() + passes * cost[best])
    return np.where(opens, worth, 0.0)


def ask(
    diagnosis: Diagnosis,
    reach: Reach,
    objective: Objective = Objective.SOONEST,
    *,
    prices: Mapping[str, float] | None = None,
) -> tuple[Question, ...]:
    """Return what to do next, the best first: nothing once a part is named, or nothing is found.

    A reading that a guard doubts is read again before all else; other readings are made again where that settles
    more a minute than a new test.

    Parameters
    ----------
    diagnosis
        What is believed.
    reach
        Where the machine stands.
    objective
        What is wanted.
    prices
        Price of a part where it is not the sheet's own, by part.
    """
    found = concluded(diagnosis, reach)
    if found.standing in ENDED:
        return ()
    again = [*_repeated(found, reach, objective), *_plate(found, reach)]
    asked = {row.test for row in again}
    new = [row for row in questions(diagnosis, reach, objective, prices=prices) if row.test not in asked]
    rows = sorted((*new, *again), key=lambda row: (-row.score, row.test))
    return tuple(_in_one_go(diagnosis, row, rows) if at == 0 else row for at, row in enumerate(rows))


def _in_one_go(diagnosis: Diagnosis, first: Question, rows: Sequence[Question]) -> Question:
    """Return the next question with what is worth making along with it."""
    if first.kind is not Asks.TEST or first.is_repeat or math.isinf(first.score):
        return first
    left = [row.test for row in rows if row.kind is Asks.TEST and not row.is_repeat]
    worth = first.bits / (HANDLING_MINUTES + first.minutes + first.reach_minutes)
    also = along_with(diagnosis, first.test, left, worth, SAME_PLACE_HANDLING)
    return replace(first, also=also, minutes=first.minutes + SAME_PLACE_MINUTES * len(also))


ENDED = frozenset({Standing.NAMED, Standing.TWO_NAMED, Standing.NOTHING_FOUND})


def concluded(diagnosis: Diagnosis, reach: Reach) -> Conclusion:
    """Return what may be said of the suspects where the machine stands: no guard asks for what cannot be made."""
    columns = efforts(diagnosis.table.sheet)
    live = frozenset() if reach.has_power else frozenset(name for name, row in columns.items() if row.is_live)
    return conclude(diagnosis, reach.barred | live, reach.stamped)


def _plate(found: Conclusion, reach: Reach) -> Iterator[Question]:
    """Yield the plate or stamp to read, before anything else, where another variant may be fitted."""
    if found.standing is Standing.ANOTHER_VARIANT:
        sheet = found.known.table.sheet
        part = sheet.known_part(_part(found.plate))
        cover = _cover_minutes(sheet, part.behind, reach)
        rating = found.plate.partition(".")[2]
        yield Question(found.plate, part.id, PLATE_MINUTES, cover, 0.0, math.inf, rating=rating)


def _repeated(found: Conclusion, reach: Reach, objective: Objective) -> Iterator[Question]:
    """Yield readings to make again; the one that a guard asks for above all else."""
    diagnosis, guarded = found.known, found.again
    columns, table = efforts(diagnosis.table.sheet), diagnosis.table
    of_part = dict(zip(table.parts, diagnosis.of_part.tolist(), strict=True))
    worth = {} if objective is Objective.CHEAPEST else dict(repeats(diagnosis))
    for test in {*worth, guarded} - {""} - reach.barred:
        effort = columns[test]
        minutes, plug, is_live, panel = effort.minutes, effort.plug_minutes, effort.is_live, effort.panel
        if effort.place is not None and effort.place == reach.place:
            minutes, plug = min(minutes, SAME_PLACE_MINUTES), 0.0
        cover = _cover_minutes(table.sheet, panel, reach) + (reach.to_live if is_live else reach.to_dead)
        bits = worth.get(test, 0.0)
        score = bits / (HANDLING_MINUTES + minutes + plug + COVER_SHARE * cover)
        if objective is Objective.LIKELIEST_FIRST:
            score += _FIRST * of_part.get(_part(test), 0.0)
        if test == guarded:
            score = math.inf
        if test == guarded or (bits >= LEAST_BITS and (reach.has_power or not is_live)):
            is_repeat = not (test == guarded and found.is_unmeasured)
            reaching = cover if is_repeat else cover + plug
            yield Question(test, _part(test), minutes, reaching, bits, score, is_repeat=is_repeat)


_FIRST = 10.0


def _chance_of(diagnosis: Diagnosis, names: tuple[str, ...]) -> Array:
    """Return the chance of the part of every question; a run through asks no part by itself."""
    of_part = dict(zip(diagnosis.table.parts, diagnosis.of_part.tolist(), strict=True))
    return np.array([of_part.get(_part(name), 0.0) for name in names])


def _part(test: str) -> str:
    return test.partition(".")[0]


def _information(diagnosis: Diagnosis, joint: Array, asked: _Asked) -> Array:
    from scipy.special import entr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

    outcome = np.add.reduceat(entr(joint.sum(axis=0)), asked.begins)
    both = np.add.reduceat(entr(joint).sum(axis=0), asked.begins)
    repair = float(entr(diagnosis.of_group).sum())
    return np.maximum(0.0, (repair + outcome - both) / math.log(2))


def _saving(table: OutcomeTable, joint: Array, asked: _Asked, prices: Mapping[str, float], minute_cost: float) -> Array:
    """Return by how much the expected cost of repairing part after part falls with each test's answer."""
    costs = np.array([_cost(table.sheet, group, prices, minute_cost) for group in table.groups])
    now = _expected_cost(joint[:, asked.begins[0] : asked.begins[1]].sum(axis=1, keepdims=True), costs)[0]
    after = np.add.reduceat(_expected_cost(joint, costs), asked.begins)
    return np.asarray(now - after)


def _cost(sheet: Sheet, group: tuple[str, ...], prices: Mapping[str, float], minute_cost: float) -> float:
    parts = [part for part in sheet.parts if part.id in group]
    return sum(prices.get(p.id, p.price or 0.0) + minute_cost * p.part_kind.repair_minutes for p in parts)


def _expected_cost(joint: Array, costs: Array) -> Array:
    """Return the expected cost of repairing in the best order, times the chance of each column [column]."""
    # Repairing part after part costs least when the most chance for the money comes first, and what is still to pay
    # after each step is paid with the chance that it is still needed.
    order = np.argsort(-joint / np.maximum(costs, 1e-6)[:, None], axis=0)
    ordered = np.take_along_axis(joint, order, axis=0)
    still = np.cumsum(ordered[::-1], axis=0)[::-1]
    return np.asarray((costs[order] * still).sum(axis=0))


def _cover_minutes(sheet: Sheet, panel: str | None, reach: Reach) -> float:
    if panel is None or panel in reach.open_panels or panel not in sheet.panels:
        return 0.0
    return reach.cover_minutes.get(panel, sheet.panels[panel].minutes)


_KEPT: dict[int, tuple[OutcomeTable, _Asked]] = {}


def _asked(table: OutcomeTable) -> _Asked:
    """Return the columns of a table, worked out once."""
    kept = _KEPT.get(id(table))
    if kept is not None and kept[0] is table:
        return kept[1]
    blocks, begins, at = [], [], 0
    for outcomes in table.tests.values():
        # Neighbouring bins as one: the order of questions does not hang on the finest, and the product takes a third.
        block = _merged(outcomes.chance) if outcomes.is_measured else outcomes.chance
        blocks.append(block * (1 - SLIP) + SLIP / block.shape[1])
        begins.append(at)
        at += block.shape[1]
    known = efforts(table.sheet)
    rows = [known[name] for name in table.tests]
    asked = _Asked(
        tuple(table.tests),
        np.concatenate(blocks, axis=1),
        np.array(begins),
        np.array([row.minutes for row in rows]),
        np.array([row.plug_minutes for row in rows]),
        np.array([row.is_live for row in rows]),
        np.array([is_look(name) for name in table.tests]),
        tuple(row.panel for row in rows),
        tuple(row.place for row in rows),
    )
    while len(_KEPT) >= 16:  # noqa: PLR2004 - as many sheets as any firm has open
        _KEPT.pop(next(iter(_KEPT)))
    _KEPT[id(table)] = table, asked
    return asked


def _merged(chance: Array) -> Array:
    """Return outcomes with neighbouring bins put together: the order of questions does not need the finest."""
    begins = np.arange(0, chance.shape[1] - 1, _MERGED)
    return np.concatenate([np.add.reduceat(chance[:, :-1], begins, axis=1), chance[:, -1:]], axis=1)


def is_look(test: str) -> bool:
    """Tell whether a question is one for eye or hand."""
    return test.partition(".")[2].startswith(LOOK)
