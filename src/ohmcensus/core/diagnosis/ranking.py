"""What to ask next: the test that settles most a minute, from where the machine stands now."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ohmcensus.core.diagnosis.again import ENDED, concluded, guarded, repeated
from ohmcensus.core.diagnosis.apart import separating
from ohmcensus.core.diagnosis.battery import along_with
from ohmcensus.core.diagnosis.effort import (
    COVER_SHARE,
    HANDLING_MINUTES,
    SAME_PLACE_HANDLING,
    SAME_PLACE_MINUTES,
    Place,
    efforts,
)
from ohmcensus.core.diagnosis.outcomes import Array, OutcomeTable
from ohmcensus.core.diagnosis.posterior import SLIP, Diagnosis
from ohmcensus.core.diagnosis.question import (
    LEAST_BITS,
    LIKELIEST_WEIGHT,
    Asks,
    Objective,
    Question,
    Reach,
    is_look,
    part_of,
)
from ohmcensus.core.diagnosis.spending import saving
from ohmcensus.core.parts.fault import FaultMode

# Minutes of taking off covers count so many times for whoever wants to take off few.
DISMANTLING_FACTOR = 5.0
_MERGED = 3


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
    minutes, reaching, spent, covers = _spent(table, asked, reach)
    joint = (table.in_group * diagnosis.chance) @ asked.outcomes
    bits = _information(diagnosis, joint, asked)
    score = bits / (spent + COVER_SHARE * covers)
    # Where power is refused, the tests that would allow it are worth what they open, and not only what they settle:
    # else the search would stay among dead tests that settle little.
    if not reach.has_power:
        score = np.maximum(score, _unlocking(diagnosis, asked, bits, spent + COVER_SHARE * covers, reach))
    if objective is Objective.LEAST_DISMANTLING:
        score = bits / (spent + DISMANTLING_FACTOR * covers)
    # Money decides, minutes break ties: without the small share equal savings would come in the order of names.
    if objective is Objective.CHEAPEST:
        saved = saving(table, joint, asked.begins, prices or {}, reach.minute_cost)
        score = score * 1e-3 + saved - reach.minute_cost * (spent + covers)
    if objective is Objective.LIKELIEST_FIRST:
        score = score + LIKELIEST_WEIGHT * _chance_of(diagnosis, asked.names)
    opens = np.array([name in reach.before_power and not reach.has_power for name in asked.names])
    wanted = np.flatnonzero(((bits >= least_bits) | opens) & (~asked.is_live | reach.has_power))
    rows = [
        Question(name, part_of(name), float(minutes[i]), float(reaching[i]), float(bits[i]), float(score[i]))
        for i in wanted.tolist()
        if (name := asked.names[i]) not in reach.left_out
    ]
    return tuple(sorted(rows, key=lambda row: (-row.score, row.test)))


def _spent(table: OutcomeTable, asked: _Asked, reach: Reach) -> tuple[Array, Array, Array, Array]:
    """Return the minutes of each test, of its whole way there, what counts of both without covers, and its covers."""
    here = np.array([place is not None and place == reach.place for place in asked.places])
    minutes = np.where(here, np.minimum(asked.minutes, SAME_PLACE_MINUTES), asked.minutes)
    plugs = np.where(here, 0.0, asked.plugs)
    handling = np.where(here, SAME_PLACE_HANDLING, HANDLING_MINUTES)
    covers = np.array([reach.minutes_to(table.sheet, panel) for panel in asked.panels])
    covers = covers + np.where(asked.is_live, reach.to_live, np.where(asked.is_look, 0.0, reach.to_dead))
    # What is shown is the whole way to the test; what counts when tests are compared is a share of the covers, since
    # the next questions will use an open cover too. One step ahead a cover is never worth it otherwise.
    needs_panel = np.array([panel is not None for panel in asked.panels])
    penalty = np.where(asked.is_live & needs_panel, reach.live_penalty, 0.0)
    return minutes, covers + plugs, handling + minutes + plugs + penalty, covers


def possible(diagnosis: Diagnosis, reach: Reach) -> tuple[Question, ...]:
    """Return every test that may still be made, unweighed, in the order of the sheet."""
    sheet, known = diagnosis.table.sheet, efforts(diagnosis.table.sheet)
    rows = []
    for name in diagnosis.table.tests:
        if name not in reach.left_out and (reach.has_power or not known[name].is_live):
            minutes, plugs, cover = reach.effort_of(name, sheet)
            rows.append(Question(name, part_of(name), minutes, plugs + cover, 0.0, 0.0))
    return tuple(rows)


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
    again = [*guarded(found, reach), *repeated(found, reach, objective)]
    asked = {row.test for row in again}
    new = [row for row in questions(diagnosis, reach, objective, prices=prices) if row.test not in asked]
    if not new and not again:
        # Nothing that is left settles much: what still tells two suspects apart is asked all the same.
        some = questions(diagnosis, reach, objective, prices=prices, least_bits=0.0)
        apart = separating(diagnosis, (row.test for row in some))
        new = [row for row in some if row.test in apart]
    rows = sorted((*new, *again), key=lambda row: (-row.score, row.test))
    return tuple(_in_one_go(diagnosis, row, rows) if at == 0 else row for at, row in enumerate(rows))


def _in_one_go(diagnosis: Diagnosis, first: Question, rows: Sequence[Question]) -> Question:
    """Return the next question with what is worth making along with it."""
    if first.kind is not Asks.TEST or first.is_repeat or first.is_guarded:
        return first
    left = [row.test for row in rows if row.kind is Asks.TEST and not row.is_repeat]
    worth = first.bits / (HANDLING_MINUTES + first.minutes + first.reach_minutes)
    also = along_with(diagnosis, first.test, left, worth, SAME_PLACE_HANDLING)
    return replace(first, also=also, minutes=first.minutes + SAME_PLACE_MINUTES * len(also))


def _chance_of(diagnosis: Diagnosis, names: tuple[str, ...]) -> Array:
    """Return the chance of the part of every question; a run through asks no part by itself."""
    of_part = dict(zip(diagnosis.table.parts, diagnosis.of_part.tolist(), strict=True))
    return np.array([of_part.get(part_of(name), 0.0) for name in names])


def _information(diagnosis: Diagnosis, joint: Array, asked: _Asked) -> Array:
    from scipy.special import entr  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

    outcome = np.add.reduceat(entr(joint.sum(axis=0)), asked.begins)
    both = np.add.reduceat(entr(joint).sum(axis=0), asked.begins)
    repair = float(entr(diagnosis.of_group).sum())
    return np.maximum(0.0, (repair + outcome - both) / math.log(2))


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
