"""What the readings of a proof of dead change: known sources, the points of the series, the pulled plug in the hand."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import named_test
from ohmcensus.core.machine.dead_tests import SOURCE_DC, SUPPLY_PAIRS, charges_by_point, points
from ohmcensus.core.machine.discharge import PLUG_SAFE_V
from ohmcensus.core.meter import Function
from ohmcensus.core.quantity import show_indication
from ohmcensus.core.safety.danger import Found, title_of
from ohmcensus.core.safety.forbidding import is_power_forbidden
from ohmcensus.core.safety.hands import begun_by, proved_by
from ohmcensus.core.safety.opening import forbidden_live, opened
from ohmcensus.core.safety.series import CREEPS_BACK, is_charged, is_inside, is_over
from ohmcensus.core.safety.walk import Walk
from ohmcensus.core.safety.words import DangerId

# A link that holds more than this five minutes after the machine was cut off does not bleed (SAFETY).
LINK_V, LINK_AFTER = 60.0, timedelta(minutes=5)
CHARGE_V = 10.0
AT_PLUG = "plug"


def after_proof_point(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a known source or a point of the proof of dead."""
    point = reading.test or ""
    if point.startswith("source"):
        return _after_source(walk, reading)
    if is_over(reading, walk.terms.sheet) or is_charged(reading, walk.terms.sheet):
        return _after_voltage(walk, reading)
    return walk if reading.refused else _after_dead_point(walk, point, reading)


def _after_dead_point(walk: Walk, point: str, reading: Reading) -> Walk:
    """Return the walk after a point that reads no voltage, or not surely one."""
    if point in walk.charged:
        if walk.now - walk.charged[point] < CREEPS_BACK:
            return walk
        charged = {name: at for name, at in walk.charged.items() if name != point}
        walk = replace(walk, charged=charged, series=replace(walk.series, fell=walk.series.fell | {point}))
    if point in charges_by_point(walk.terms.sheet) and is_inside(reading, walk.terms.sheet):
        walk = walk.marked(f"fine {point}") if reading.supersedes is None else walk
        walk = replace(walk, discharged=walk.discharged | {point})
    if walk.cut is None or walk.is_under_power:
        return walk
    if walk.cut is CutOff.PLUG_IN_HAND:
        return _in_hand(walk, reading)
    is_good = is_inside(reading, walk.terms.sheet)
    return replace(walk, series=walk.series.after_point(reading), proved=walk.proved if is_good else None)


def after_charge(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after DC was read between the pins of the pulled plug."""
    if reading.function is not Function.VOLTS_DC:
        return walk
    interval = reading.meter.interval_of(reading.indication, reading.function)
    value = reading.indication.value
    is_left = value is None or abs(value) > CHARGE_V
    walk = replace(walk, is_hand_charged=is_left)
    if not is_left and not reading.refused and reading.supersedes is None:
        walk = walk.marked(f"fine {AT_PLUG}")
    if walk.cut is None or not (interval.lo > PLUG_SAFE_V or interval.hi < -PLUG_SAFE_V):
        return walk
    words = f"{show_indication(reading.indication)} at the pins of the pulled plug"
    return opened(walk, _charge("filter.across", AT_PLUG, words, reading, walk))


def _after_source(walk: Walk, reading: Reading) -> Walk:
    if walk.cut is None or walk.is_under_power or reading.refused:
        return walk
    is_good = is_inside(reading, walk.terms.sheet)
    if walk.cut is CutOff.PLUG_IN_HAND:
        is_ac = reading.test != SOURCE_DC
        return replace(walk, hand_meter=reading.meter.id if is_good else "") if is_ac else walk
    series = walk.series.after_source(reading, walk.terms.sheet)
    begins = begun_by(walk, reading.device, reading.who) if is_good and walk.proved is None else walk
    shown = replace(begins, series=series, proved=walk.proved if is_good else None)
    # A source of direct voltage stands between the two of alternating voltage, and closes nothing.
    return shown if reading.test == SOURCE_DC else _closed(shown, reading)


def _closed(walk: Walk, source: Reading) -> Walk:
    """Return the walk with the machine proved dead, where the series is whole."""
    sheet = walk.terms.sheet
    # A charge of a sheet that does not hold any more has no point: the whole series speaks for it.
    held = {name: at for name, at in walk.charged.items() if name in {test.id for test in points(sheet)}}
    if walk.proved is not None or held or not walk.series.is_whole(sheet):
        return walk
    whole = replace(walk, proved=source, is_over=False, lapsed="", may_be_short=False, attended=walk.now, charged={})
    return proved_by(whole.marked("dead"), source.device)


def _in_hand(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a reading at the pins of the pulled plug: no voltage, no charge, a proper meter."""
    if reading.test != SUPPLY_PAIRS[0] or not is_inside(reading, walk.terms.sheet):
        return walk
    if walk.hand_meter != reading.meter.id or walk.charged:
        return walk
    return proved_by(replace(walk, is_hand_proved=True).marked("hand"), reading.device)


def _after_voltage(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a point that is over its limit: under voltage where it is AC, charged where it is DC."""
    words = f"voltage at {title_of(str(reading.test), walk.terms)}: {show_indication(reading.indication)}"
    walk = walk.shouted(reading.at, words)
    if walk.is_under_power:
        return replace(walk, is_over=True)
    if reading.function is Function.VOLTS_AC:
        was_forbidden = is_power_forbidden(walk)
        walk = replace(walk.powered_by(words), is_over=True)
        return forbidden_live(walk, words) if was_forbidden else walk
    point = str(reading.test)
    charged = {**walk.charged, point: walk.now}
    series = walk.series.after_point(reading)
    walk = replace(walk, charged=charged, discharged=walk.discharged - {point}, series=series)
    walk = replace(walk, is_over=True, proved=None, is_hand_proved=False)
    return _after_link(walk, reading)


def _after_link(walk: Walk, reading: Reading) -> Walk:
    interval = reading.meter.interval_of(reading.indication, reading.function)
    is_late = walk.cut_at is not None and walk.now - walk.cut_at >= LINK_AFTER
    point = str(reading.test)
    line = f"{point.partition('.')[2]}.bleed"
    if not is_late or interval.lo <= LINK_V or named_test(line, walk.terms) is None:
        return walk
    words = f"{show_indication(reading.indication)} on the link five minutes after it was cut off"
    return opened(walk, _charge(line, point, words, reading, walk))


def _charge(line: str, reads: str, words: str, reading: Reading, walk: Walk) -> Found:
    return Found(
        DangerId.CHARGE,
        line,
        words,
        walk.order,
        reading.at,
        walk.terms,
        is_measured=True,
        record=reading.id,
        part=line.partition(".")[0],
        reads=reads,
    )
