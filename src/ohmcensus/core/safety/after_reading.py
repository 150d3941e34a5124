"""What a reading changes: the series, the state, the evidence of its line, the dangers that it opens."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

from ohmcensus.core.event import CutOff
from ohmcensus.core.job.reading import Reading
from ohmcensus.core.judgement.passes import Pass, named_test
from ohmcensus.core.limits.terms import Terms
from ohmcensus.core.machine import is_proof
from ohmcensus.core.machine.dead_tests import SOURCE_DC, SUPPLY_PAIRS
from ohmcensus.core.machine.discharge import PLUG_SAFE_V
from ohmcensus.core.machine.net import PLUG_L, PLUG_N
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.kind import MachineState
from ohmcensus.core.quantity import Interval, show_indication
from ohmcensus.core.safety.danger import OUTLET_LINE, Found, measured, outlet_without_earth, title_of
from ohmcensus.core.safety.evidence import Evidence, of_reading
from ohmcensus.core.safety.lifting import is_power_forbidden, voided
from ohmcensus.core.safety.needs import is_neutral_earthed
from ohmcensus.core.safety.series import is_a_minute_later, is_charged, is_inside, is_over
from ohmcensus.core.safety.walk import Shout, Walk, moment
from ohmcensus.core.safety.words import DangerId

# What surely shows power between two points, and what surely shows nothing (SAFETY).
POWER_AC_V, POWER_DC_V = 5.0, 0.5
OUTLET_VOLTS = frozenset({"outlet.ln", "outlet.le", "outlet.ne"})
# What is read at the outlet with the machine's plug out.
OF_THE_HOUSE = OUTLET_VOLTS | {"outlet.rcd_ramp", "outlet.rcd_time"}
# A link that holds more than this five minutes after the machine was cut off does not bleed (SAFETY).
LINK_V, LINK_AFTER = 60.0, timedelta(minutes=5)
# A reading corrected within this time was a slip of the finger (SAFETY).
SLIP = timedelta(minutes=2)
_AT_PLUG = frozenset({PLUG_L, PLUG_N})


def after_reading(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after one reading, a correction or a withdrawal."""
    if reading.supersedes:
        walk = _superseded(walk, reading)
    if reading.withdrawn or reading.loose:
        return walk
    if reading.test is not None and is_proof(reading.test):
        return _after_proof_point(walk, reading)
    if shows_power(reading, walk.terms) and not walk.is_live and not walk.powered:
        return _found_powered(walk, reading)
    if is_at_plug(reading):
        walk = _after_charge(walk, reading)
    if reading.test is None and reading.function not in _DRIVEN:
        return walk
    return with_evidence(walk, of_reading(reading, walk.terms), is_proper=_is_proper(reading))


_DRIVEN = frozenset({Function.OHM, Function.CONTINUITY, Function.INSULATION, Function.LEAKAGE})


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
    good, many = dict(walk.good), dict(walk.row)
    if result is Pass.GOOD and is_proper:
        good[row.line] = row
        many[row.line] = many.get(row.line, 0) + 1
    elif result is Pass.BAD or not row.is_kept_by_a_lesser(walk.terms):
        good.pop(row.line, None)
        many.pop(row.line, None)
    walk = replace(walk, good=good, row=many, latest={**walk.latest, row.line: row})
    found = measured(row, walk.terms)
    if row.line in OUTLET_VOLTS:
        return _after_outlet(walk, row)
    return walk if found is None or _is_blind_outlet(walk, found) else opened(walk, found)


def _after_outlet(walk: Walk, row: Evidence) -> Walk:
    """Return the walk after a voltage of the outlet: with all three one knows whether it has an earth."""
    rows = {name: walk.latest[f"outlet.{name}"] for name in ("ln", "le", "ne") if f"outlet.{name}" in walk.latest}
    if len(rows) < len(OUTLET_VOLTS) or not is_neutral_earthed(walk) or not outlet_without_earth(rows, walk.terms):
        return walk
    words = f"the outlet has no earth: {rows['ln'].shows}, {rows['le'].shows}, {rows['ne'].shows}"
    found = Found(DangerId.EARTH, OUTLET_LINE, words, row.order, row.at, walk.terms, is_measured=True, record=row.id)
    return opened(walk, found)


def opened(walk: Walk, found: Found) -> Walk:
    """Return the walk with a danger: one entry a cause, the newest; power on a machine that must have none is told."""
    kept = tuple(row for row in walk.found if (row.id, row.line) != (found.id, found.line))
    is_powered = bool(walk.powered) or walk.is_live
    walk = replace(walk, found=(*kept, found))
    if found.id in _STOOD:
        walk = replace(walk, marks=replace(walk.marks, hazard=max(walk.marks.hazard, found.since, 1)))
    if not is_powered or not is_power_forbidden(walk, found):
        return walk
    why = f"{found.id.words}: cut it off now"
    walk = walk.powered_by(why) if walk.is_live else walk
    return walk if found.id is DangerId.TRIP and not found.is_measured else _forbidden_live(walk, why)


_STOOD = frozenset({DangerId.SHOCK, DangerId.TRIP, DangerId.BURNT_SMELL, DangerId.WATER_INSIDE})


def forbidden_live(walk: Walk, words: str) -> Walk:
    """Return the walk of a machine that stands under voltage although a danger forbids power."""
    return _forbidden_live(walk, words)


def _forbidden_live(walk: Walk, words: str) -> Walk:
    found = Found(DangerId.LIVE_THOUGH_FORBIDDEN, "power", words, walk.order, "", walk.terms)
    kept = tuple(row for row in walk.found if row.id is not DangerId.LIVE_THOUGH_FORBIDDEN)
    return replace(walk, found=(*kept, found))


def shows_power(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading surely shows what only a powered machine gives."""
    test = named_test(reading.test, terms, reading.stated_celsius)
    if test is not None and (test.state is not MachineState.LIVE or reading.test in OF_THE_HOUSE):
        return False
    if test is None and is_at_plug(reading):
        return False
    return is_powered_by(reading.function, reading.meter.interval_of(reading.indication, reading.function))


def is_powered_by(function: Function, interval: Interval) -> bool:
    """Tell whether a value surely is one that only a powered machine gives."""
    if function is Function.VOLTS_AC:
        return interval.lo > POWER_AC_V or interval.hi < -POWER_AC_V
    if function is Function.VOLTS_DC:
        return interval.lo > POWER_DC_V or interval.hi < -POWER_DC_V
    return function in {Function.HERTZ, Function.AMPERE, Function.LEAKAGE} and interval.lo > 0


def is_live_test(reading: Reading, terms: Terms) -> bool:
    """Tell whether a reading answers a test of the powered machine, the outlet's volts and the sources apart."""
    test = named_test(reading.test, terms, reading.stated_celsius)
    is_outlet = reading.test in OF_THE_HOUSE
    return test is not None and test.state is MachineState.LIVE and not is_outlet and not is_proof(reading.test)


def is_at_plug(reading: Reading) -> bool:
    """Tell whether volts were read between the pins of the pulled plug."""
    is_volts = reading.function in {Function.VOLTS_AC, Function.VOLTS_DC}
    return is_volts and set(reading.between) <= {*_AT_PLUG, "cord.plug_pe"}


def _is_proper(reading: Reading) -> bool:
    return not reading.override and reading.supersedes is None


def _superseded(walk: Walk, reading: Reading) -> Walk:
    """Void what a reading had shown that is corrected or taken back; what it opened stands."""
    gone = reading.supersedes or ""
    walk = voided(walk, gone)
    if reading.withdrawn:
        return walk

    def slipped(row: Found) -> Found:
        is_slip = row.record == gone and moment(reading.at) - moment(row.at) <= SLIP
        return replace(row, is_corrected=True) if is_slip else row

    return replace(walk, found=tuple(map(slipped, walk.found)))


def _found_powered(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a reading that only a powered machine gives, on one that was thought to have none."""
    shows = show_indication(reading.indication)
    line = reading.test or " ".join(reading.between)
    words = f"{title_of(line, walk.terms)} reads {shows}: only a powered machine gives that"
    was_forbidden = is_power_forbidden(walk)
    walk = replace(walk.powered_by(words), shouts=(*walk.shouts, Shout(walk.order, reading.at, words)))
    found = measured(of_reading(reading, walk.terms), walk.terms)
    walk = opened(walk, found) if found is not None else walk
    return _forbidden_live(walk, words) if was_forbidden else walk


def _after_charge(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after DC was read between the pins of the pulled plug."""
    if reading.function is not Function.VOLTS_DC:
        return walk
    interval = reading.meter.interval_of(reading.indication, reading.function)
    value = reading.indication.value
    is_left = value is None or abs(value) > CHARGE_V
    walk = replace(walk, is_hand_charged=is_left)
    if walk.cut is None or not (interval.lo > PLUG_SAFE_V or interval.hi < -PLUG_SAFE_V):
        return walk
    words = f"{show_indication(reading.indication)} at the pins of the pulled plug"
    return opened(walk, _charge("filter.across", words, reading, walk))


CHARGE_V = 10.0


def _after_proof_point(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a known source or a point of the proof of dead."""
    if reading.test is not None and reading.test.startswith("source"):
        return _after_source(walk, reading)
    if is_over(reading, walk.terms.sheet) or is_charged(reading, walk.terms.sheet):
        return _after_voltage(walk, reading)
    point = reading.test or ""
    if point in walk.charged:
        if not is_a_minute_later(reading.at, walk.charged[point]):
            return walk
        charged = {name: at for name, at in walk.charged.items() if name != point}
        fell = walk.series.fell | {point}
        walk = replace(walk, charged=charged, series=replace(walk.series, fell=fell))
    if walk.cut is None or walk.powered or walk.is_live:
        return walk
    if walk.cut is CutOff.PLUG_IN_HAND:
        return _in_hand(walk, reading)
    is_good = is_inside(reading, walk.terms.sheet)
    return _closed(replace(walk, series=walk.series.after_point(reading), proved=walk.proved if is_good else None))


def _after_source(walk: Walk, reading: Reading) -> Walk:
    if walk.cut is None or walk.powered or walk.is_live:
        return walk
    is_good = is_inside(reading, walk.terms.sheet)
    if walk.cut is CutOff.PLUG_IN_HAND:
        is_ac = reading.test != SOURCE_DC
        return replace(walk, hand_meter=reading.meter.id if is_good else "") if is_ac else walk
    series = walk.series.after_source(reading, walk.terms.sheet)
    begins = replace(walk, prover=reading.device, prover_who=reading.who) if walk.proved is None else walk
    return _closed(replace(begins, series=series, proved=walk.proved if is_good else None), reading)


def _closed(walk: Walk, source: Reading | None = None) -> Walk:
    """Return the walk with the machine proved dead, where the series is whole."""
    if walk.proved is not None or source is None or walk.charged or not walk.series.is_whole(walk.terms.sheet):
        return walk
    whole = replace(walk, proved=source, is_over=False, lapsed="", may_be_short=False, attended=moment(source.at))
    return whole.marked("dead")


def _in_hand(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a reading at the pins of the pulled plug: no voltage there, by a meter that showed one."""
    if reading.test != SUPPLY_PAIRS[0] or not is_inside(reading, walk.terms.sheet):
        return walk
    if walk.hand_meter != reading.meter.id:
        return walk
    return replace(walk, is_hand_proved=True).marked("hand")


def _after_voltage(walk: Walk, reading: Reading) -> Walk:
    """Return the walk after a point that is over its limit: under voltage where it is AC, charged where it is DC."""
    words = f"voltage at {title_of(str(reading.test), walk.terms)}: {show_indication(reading.indication)}"
    walk = replace(walk, shouts=(*walk.shouts, Shout(walk.order, reading.at, words)))
    if walk.powered or walk.is_live:
        return walk
    if reading.function is Function.VOLTS_AC:
        was_forbidden = is_power_forbidden(walk)
        walk = replace(walk.powered_by(words), is_over=True)
        return _forbidden_live(walk, words) if was_forbidden else walk
    charged = {**walk.charged, str(reading.test): moment(reading.at)}
    series = walk.series.after_point(reading)
    walk = replace(walk, charged=charged, is_over=True, proved=None, series=series, is_hand_proved=False)
    return _after_link(walk, reading)


def _after_link(walk: Walk, reading: Reading) -> Walk:
    interval = reading.meter.interval_of(reading.indication, reading.function)
    is_late = walk.cut_at is not None and moment(reading.at) - walk.cut_at >= LINK_AFTER
    part = str(reading.test).partition(".")[2]
    if not is_late or interval.lo <= LINK_V or named_test(f"{part}.bleed", walk.terms) is None:
        return walk
    words = f"{show_indication(reading.indication)} on the link five minutes after it was cut off"
    return opened(walk, _charge(f"{part}.bleed", words, reading, walk))


def _charge(line: str, words: str, reading: Reading, walk: Walk) -> Found:
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
    )


def _is_blind_outlet(walk: Walk, found: Found) -> bool:
    """Tell whether a line is of the outlet's own pins to the machine, which say nothing of the machine."""
    return found.id is DangerId.EARTH and "outlet.pe" in found.line.split(" ") and walk.cut is not None
