"""What a reading changes: the state, the evidence of its line, the dangers that it opens."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

from ohmcensus.core.event import When
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import Pass
from ohmcensus.core.machine import is_proof
from ohmcensus.core.meter import Function
from ohmcensus.core.safety.clock import moment
from ohmcensus.core.safety.danger import OUTLET_LINE, Found, title_of
from ohmcensus.core.safety.evidence import Evidence, Weight, of_leak_test_without, of_reading
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.lifting import voided
from ohmcensus.core.safety.measured import measured, outlet_found
from ohmcensus.core.safety.needs import is_neutral_earthed, outlet_rows
from ohmcensus.core.safety.opening import forbidden_live, opened
from ohmcensus.core.safety.powered import OUTLET_VOLTS, is_at_plug, is_live_test, shows_power
from ohmcensus.core.safety.proof_points import after_charge, after_proof_point
from ohmcensus.core.safety.stretch import order_before
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.whole import (
    ends_are_supply,
    is_by_arrester,
    is_lead_off,
    is_plug_turned_freely,
    without,
)
from ohmcensus.core.safety.words import DangerId

# A reading corrected within this time was a slip of the finger (SAFETY).
SLIP = timedelta(minutes=2)
# What a meter drives itself, or what tells of a leak, between points that no test names.
_DRIVEN = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION, Function.LEAKAGE})


def after_reading(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after one reading, a correction or a withdrawal."""
    if reading.supersedes:
        walk, is_done = _superseded(walk, reading)
        if is_done:
            return walk
    if reading.withdrawn or reading.loose:
        return walk
    if reading.override:
        walk = replace(walk, reasons=walk.reasons | {reading.override.casefold()})
    if reading.test is not None and is_proof(reading.test):
        return after_proof_point(walk, reading)
    if shows_power(reading, walk.terms) or (reading.was and is_live_test(reading, walk.terms)):
        return _of_power(walk, reading)
    if is_at_plug(reading):
        walk = after_charge(walk, reading)
    if reading.test is None and reading.function not in _DRIVEN:
        return walk
    return with_evidence(walk, evidence_of(walk, reading), is_proper=is_proper(reading))


def evidence_of(walk: Walk, reading: Reading) -> Evidence:
    """Return what a reading says of its line as the machine stands: of the whole only where all of it is on."""
    row = of_reading(reading, walk.terms)
    row = replace(
        row,
        without=without(reading, row.line, walk),
        is_shut=not walk.covers or ends_are_supply(walk),
        is_by_arrester=is_by_arrester(reading, row.line, walk),
        is_lead_off=is_lead_off(reading, row.line, walk),
    )
    return of_leak_test_without(row, walk.terms) if row.without else row


def is_proper(reading: Reading) -> bool:
    """Tell whether a reading may lift and prove: neither overridden nor a correction, and admitted."""
    return not reading.override and reading.supersedes is None and not reading.refused


def with_evidence(walk: Walk, row: Evidence, *, is_proper: bool) -> Walk:
    """Return the walk with one more answer to a line: it opens a danger, or counts as good from now on.

    Parameters
    ----------
    walk
        Where the job stands.
    row
        The answer.
    is_proper
        Whether it may lift and prove: taken on the machine in the proper state, neither overridden nor a correction.
    """
    result = row.result(walk.terms)
    if result is Pass.GOOD and is_proper and not row.is_blind:
        weight = Weight.GOOD
    elif result is Pass.BAD or (result is Pass.UNSURE and not row.is_kept_by_a_lesser(walk.terms)):
        weight = Weight.TAKES
    else:
        weight = Weight.NOTHING
    row = replace(row, weight=weight)
    walk = replace(walk, rows={**walk.rows, row.line: (*walk.rows.get(row.line, ()), row)})
    if row.line in OUTLET_VOLTS:
        return after_outlet(walk, row.order, row.at, row.id)
    found = measured(row, walk.terms)
    if found is None or _is_blind_outlet(walk, found) or not _is_opened_by(walk, found, row):
        return walk
    return opened(walk, found)


def _is_opened_by(walk: Walk, found: Found, row: Evidence) -> bool:
    """Tell whether a bad line opens its danger: a joint asks to be read twice, every other line once."""
    if found.id is not DangerId.CORD or not row.line.endswith("_joint"):
        return True
    bad = [each for each in walk.rows[row.line] if measured(each, walk.terms) is not None]
    return len(bad) > 1


def after_outlet(walk: Walk, order: int, at: str, record: str) -> Walk:
    """Return the walk after a voltage of the outlet, or how its plug goes in: two or three of them tell of its earth.

    Parameters
    ----------
    walk
        Where the job stands, the voltages in it.
    order, at, record
        Of the record that told it.
    """
    if not is_neutral_earthed(walk):
        return walk
    rows = outlet_rows(walk)
    intervals = {name: each.interval for name, each in rows.items()}
    what = outlet_found(intervals, walk.terms, is_reversible=is_plug_turned_freely(walk))
    if not what:
        return walk
    pairs = {name: title_of(f"outlet.{name}", walk.terms).removeprefix("outlet, ") for name in rows}
    shown = ", ".join(f"{pairs[name]} {each.shows}" for name, each in rows.items())
    words = f"{what}: {shown}"
    found = Found(DangerId.EARTH, OUTLET_LINE, words, order, at, walk.terms, is_measured=True, record=record)
    return opened(walk, found)


def _superseded(walk: Walk, reading: Reading) -> tuple[Walk, bool]:
    """Void what a reading had shown that is corrected or taken back, and tell whether all is said with that.

    What it had opened stands. A good reading that is corrected to another good one goes on showing what it showed.
    """
    gone = reading.supersedes or ""
    if not reading.withdrawn:
        kept = _corrected_alike(walk, reading)
        if kept is not None:
            return kept, True
    walk = voided(walk, gone)
    if reading.withdrawn:
        return _unproved(walk, gone), True

    def slipped(row: Found) -> Found:
        is_slip = row.record == gone and not reading.refused and walk.now - moment(row.at) <= SLIP
        return replace(row, is_corrected=True) if is_slip else row

    return replace(walk, found=tuple(map(slipped, walk.found))), False


def _unproved(walk: Walk, gone: str) -> Walk:
    """Return the walk without a proof that rested on a reading which was taken back."""
    points = {name: row for name, row in walk.series.points.items() if row.id != gone}
    tools = {name: tool for name, tool in walk.series.tools.items() if tool.before.id != gone}
    is_closing = walk.proved is not None and walk.proved.id == gone
    if len(points) == len(walk.series.points) and len(tools) == len(walk.series.tools) and not is_closing:
        return walk
    return replace(walk, series=replace(walk.series, points=points, tools=tools), proved=None)


def _corrected_alike(walk: Walk, reading: Reading) -> Walk | None:
    """Return the walk with the corrected figure in the place of a good one; None where either is not good."""
    for line, rows in walk.rows.items():
        for place, row in enumerate(rows):
            if row.id != reading.supersedes:
                continue
            new = replace(of_reading(reading, walk.terms), order=row.order, at=row.at, without=row.without)
            new = replace(new, is_shut=row.is_shut, is_by_arrester=row.is_by_arrester, is_lead_off=row.is_lead_off)
            is_good = row.weight is Weight.GOOD and new.line == line and new.result(walk.terms) is Pass.GOOD
            if not is_good or reading.override or reading.refused:
                return None
            after = (*rows[:place], replace(new, weight=Weight.GOOD), *rows[place + 1 :])
            lifted = tuple(replace(each, by=_renamed(each.by, row.id, new.id)) for each in walk.lifted)
            return replace(walk, rows={**walk.rows, line: after}, lifted=lifted)
    return None


def _renamed(ids: frozenset[str], old: str, new: str) -> frozenset[str]:
    return ids - {old} | {new} if old in ids else ids


def _of_power(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a reading that only a powered machine gives: now, before the cut-off, or found."""
    row = evidence_of(walk, reading)
    if reading.was == When.BEFORE:
        order = order_before(walk)
        if order is not None:
            return with_evidence(walk, replace(row, order=order), is_proper=is_proper(reading))
        return with_evidence(walk, row, is_proper=False)
    if reading.was == When.NOW and not walk.is_under_power:
        walk = walk.powered_by("read under power")
    if not walk.is_under_power and shows_power(reading, walk.terms):
        return _found_powered(walk, row)
    if reading.test is None and reading.function not in _DRIVEN:
        return walk
    return with_evidence(walk, row, is_proper=is_proper(reading))


def _found_powered(walk: Walk, row: Evidence) -> Walk:
    """Return the walk after a reading that only a powered machine gives, on one that was thought to have none."""
    words = f"{title_of(row.line, walk.terms)} reads {row.shows}: only a powered machine gives that"
    was_forbidden = is_power_forbidden(walk)
    walk = walk.powered_by(words).shouted(row.at, words)
    found = measured(row, walk.terms)
    walk = opened(walk, found) if found is not None else walk
    return forbidden_live(walk, words) if was_forbidden else walk


def _is_blind_outlet(walk: Walk, found: Found) -> bool:
    """Tell whether a line is of the outlet's own pins to the machine, which say nothing of the machine."""
    return found.id is DangerId.EARTH and "outlet.pe" in found.line.split(" ") and walk.cut is not None
