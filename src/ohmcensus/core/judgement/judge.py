"""One reading, judged and put into words."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.judgement.ghost_volts import ghost_volts_below
from ohmcensus.core.judgement.instrument import Use
from ohmcensus.core.judgement.verdict import Verdict, verdict_in
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.meter import Function
from ohmcensus.core.parts.expect import OPEN_CONTACT_WORDS
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity import Bound, Indication, Interval, show_value
from ohmcensus.core.quantity.window import Source, Window

_BASIS_WORD = {Source.SHEET: "from ", Source.PLATE: "from ", Source.CENSUS: "from ", Source.COMMON: ""}


@dataclass(frozen=True, slots=True)
class Judgement:
    """What a reading says of a part.

    Parameters
    ----------
    verdict
        Outcome.
    interval
        All values the reading may stand for, SI.
    window
        What a good part reads, None where no test names the points.
    blind_to
        Fault modes that stay possible although the reading is inside.
    sentence
        Outcome with window and basis: "inside 25.2–29.4 Ω, from the plate: …".
    remark
        A few words for the line: "six times too low", "blind to a leak".
    healthy
        Whether insulation reads as a healthy part's does: false from the limit to a tenth of that, None where the
        reading cannot tell or nothing is known of healthy ones.
    comes_and_goes
        Whether the display moved by more than the meter's error.
    """

    verdict: Verdict
    interval: Interval
    window: Window | None
    blind_to: tuple[FaultMode, ...]
    sentence: str
    remark: str
    healthy: bool | None = None
    comes_and_goes: bool = False


def judge(use: Use, test: MachineTest | None) -> Judgement:
    """Judge one reading.

    Parameters
    ----------
    use
        Meter, function and indication.
    test
        The test that was made, None between two points that no test names.

    Returns
    -------
    Judgement
        *not judged* where there is no test.
    """
    interval = use.meter.interval_of(use.indication, use.function)
    if test is None:
        sentence = "no test on this sheet names these two points: kept as it reads"
        return Judgement(Verdict.NOT_JUDGED, interval, None, (), sentence, "no window")
    ends = _ends(use)
    verdict = verdict_in(use.indication, ends, test.window, use.function)
    has_moved = test.window.rails is None and are_apart(*ends) and not _is_settling(verdict, use)
    if has_moved and verdict is Verdict.INSIDE:
        verdict = Verdict.UNSURE
    if use.weaker is not None and use.weaker.proves_nothing and verdict in _NOT_OUTSIDE:
        verdict = Verdict.NOT_JUDGED
    blind = tuple(dict.fromkeys((*test.blind_to, *(use.weaker.blind_to if use.weaker else ()))))
    return Judgement(
        verdict=verdict,
        interval=interval,
        window=test.window,
        blind_to=blind,
        sentence=_sentence(verdict, use, test),
        remark=_with_plug_on(verdict, interval, test) or _remark(verdict, use, test, blind),
        healthy=_healthy(interval, test, use),
        comes_and_goes=has_moved,
    )


_NOT_OUTSIDE = frozenset({Verdict.INSIDE, Verdict.UNSURE})


def _ends(use: Use) -> tuple[Interval, Interval]:
    """Return what both ends of a display stand for."""
    first, last = use.indication.ends
    return use.meter.interval_of(first, use.function), use.meter.interval_of(last, use.function)


def are_apart(one: Interval, other: Interval) -> bool:
    """Tell whether two readings differ by more than their meters allow."""
    return one.lo > other.hi or other.lo > one.hi


def _is_settling(verdict: Verdict, use: Use) -> bool:
    """Tell whether a display only charged what it was put on: it rose, inside throughout, where no end is above."""
    return verdict is Verdict.INSIDE and use.function is Function.INSULATION


def _healthy(interval: Interval, test: MachineTest, use: Use) -> bool | None:
    """Tell whether a reading of insulation is a healthy part's: a tenth of what a good one reads divides the two."""
    if test.healthy_ohm is None or interval.lo >= test.healthy_ohm:
        return True if test.healthy_ohm is not None and use.weaker is None else None
    return False if interval.hi < test.healthy_ohm else None


def _with_plug_on(verdict: Verdict, interval: Interval, test: MachineTest) -> str:
    """Say so where a reading that is outside is just what the part reads with its plug still on."""
    on = test.with_plug_on
    if on is None or verdict not in {Verdict.OUTSIDE_LOW, Verdict.OUTSIDE_HIGH, Verdict.UNSURE}:
        return ""
    if not (on.interval.lo <= interval.lo and interval.hi <= on.interval.hi):
        return ""
    return "as with its plug still on: pull it, read again"


def window_with_basis(window: Window) -> str:
    """Return a window and its ground: "25.2–29.4 Ω, from the plate: 2000 W at 230 V, +5/−10 %"."""
    return f"{window.shown}, {_BASIS_WORD[window.source]}{window.basis}"


def _sentence(verdict: Verdict, use: Use, test: MachineTest) -> str:
    """Put the outcome into one sentence."""
    should = window_with_basis(test.window) + _fit(use.indication, test)
    lesser = f"; {use.weaker.why}" if use.weaker and use.weaker.blind_to and verdict is Verdict.INSIDE else ""
    is_poor = (
        verdict is Verdict.INSIDE and _healthy(use.meter.interval_of(use.indication, use.function), test, use) is False
    )
    poor = "; it keeps the limit and is not healthy: dry it or warm it, then read it again" if is_poor else ""
    return {
        Verdict.INSIDE: f"inside {should}{lesser}{poor}",
        Verdict.OUTSIDE_LOW: f"outside, low: should read {should}",
        Verdict.OUTSIDE_HIGH: f"outside, high: should read {should}",
        Verdict.UNSURE: f"{_unsure(use, test)} {should}",
        Verdict.OPEN: f"open: should read {should}",
        Verdict.SHORT: f"{_short_word(test)}: should read {should}",
        Verdict.NOT_JUDGED: f"{_lesser(use)} {should}",
    }[verdict]


def _lesser(use: Use) -> str:
    why = use.weaker.why if use.weaker else ""
    return f"{why}: 0.2 A and 0.01 Ω show it; should read"


def _unsure(use: Use, test: MachineTest) -> str:
    if test.window.rails is not None:
        return "unsure: at neither rail; should read"
    if use.indication.has_moved:
        return "comes and goes: should stand still at"
    return "unsure: within the meter's error of the edge of"


# Where no temperature is stated, a fit outside these is none (ours).
_COLDEST_C, _HOTTEST_C = -10.0, 110.0
_HALVINGS = 40


def _fit(indication: Indication, test: MachineTest) -> str:
    """Say at which temperature a reading would fit, where none was stated and the value goes with it."""
    value, at = indication.value, test.nominal_at
    if value is None or at is None or indication.bound is not Bound.EXACT or indication.has_moved:
        return ""
    low, high = _COLDEST_C, _HOTTEST_C
    if not min(at(low), at(high)) <= value <= max(at(low), at(high)):
        return "; it fits no temperature that a machine has"
    rises = at(high) > at(low)
    for _ in range(_HALVINGS):
        middle = (low + high) / 2
        low, high = (middle, high) if (at(middle) < value) is rises else (low, middle)
    return f"; fits {low:.0f} °C: state it, add 'at {low:.0f}C'"


def _remark(verdict: Verdict, use: Use, test: MachineTest, blind: tuple[FaultMode, ...]) -> str:
    """Return the few words for the line."""
    if test.window.rails is not None:
        return _rail_words(verdict, use)
    if use.indication.has_moved and verdict is not Verdict.INSIDE:
        return "comes and goes"
    if test.at_zero and use.indication.value == 0:
        return test.at_zero
    if verdict is Verdict.INSIDE:
        return _inside_words(use, test, blind)
    return _not_inside_words(verdict, use, test)


def _not_inside_words(verdict: Verdict, use: Use, test: MachineTest) -> str:
    if verdict is Verdict.OUTSIDE_HIGH and math.isinf(use.meter.interval_of(use.indication, use.function).hi):
        return _over_range(use)
    if 0.0 < (use.indication.value or 0.0) < ghost_volts_below(use.function, use.meter, test.window.interval):
        return "no volts: read again with a load or a low-impedance meter"
    if verdict in {Verdict.OUTSIDE_LOW, Verdict.OUTSIDE_HIGH}:
        return how_far(use.indication, test.window)
    if verdict is Verdict.UNSURE:
        return _unsure_words(use, test)
    if verdict is Verdict.NOT_JUDGED and use.weaker is not None:
        return use.weaker.why
    return {Verdict.OPEN: "open circuit", Verdict.SHORT: "closed" if _is_contact(test) else "shorted"}.get(verdict, "")


def _is_contact(test: MachineTest) -> bool:
    """Tell whether a test asks an open contact, which is closed and not shorted where it reads nothing."""
    return test.window.words == OPEN_CONTACT_WORDS


def _short_word(test: MachineTest) -> str:
    return "closed" if _is_contact(test) else "short"


def _over_range(use: Use) -> str:
    """Say what over-range is where it is no open circuit."""
    if use.function is Function.CAPACITANCE:
        return "over-range: shorted, charged, or the wrong range"
    full = use.indication.value if use.indication.value is not None else use.meter.full_scale(use.function)
    return f"over-range: at least {show_value(full, use.function.unit)}"


def _inside_words(use: Use, test: MachineTest, blind: tuple[FaultMode, ...]) -> str:
    if use.weaker is not None and use.weaker.blind_to:
        return "not proved: needs 500 V"
    if _healthy(use.meter.interval_of(use.indication, use.function), test, use) is False:
        return "not healthy: dry or warm it"
    return "blind to a leak" if FaultMode.LEAK in blind and test.touches_chassis else ""


def _unsure_words(use: Use, test: MachineTest) -> str:
    if use.meter.is_typed_coarse(use.indication, use.function):
        return "type one digit more"
    counts = ": counts as not passed" if test.proves is not None or test.function is Function.INSULATION else ""
    return f"within the meter's error{counts}"


def _rail_words(verdict: Verdict, use: Use) -> str:
    """Say what an output does that should toggle."""
    if verdict is Verdict.INSIDE:
        return "toggles" if use.indication.has_moved else "moves"
    if verdict is Verdict.UNSURE:
        return "at neither rail: move it slowly, type both, e.g. 0.1..4.9"
    if use.indication.has_moved:
        return "does not reach its rail"
    return "stands low" if verdict is Verdict.OUTSIDE_LOW else "stands high"


def how_far(indication: Indication, window: Window) -> str:
    """Say how far outside a reading lies: "six times too low", "three decades too high"."""
    value = indication.value
    lo, hi = window.interval.finite_lo, window.interval.finite_hi
    if value is None or indication.has_moved:
        return ""
    if lo is not None and value < lo:
        return _ratio(lo, value, "low", show_value(lo - value, window.unit, figures=2))
    if hi is not None and value > hi:
        return _ratio(value, hi, "high", show_value(value - hi, window.unit, figures=2))
    return ""


_COUNT = ("", "", "two", "three", "four", "five", "six", "seven", "eight", "nine")
_TWICE = 2.0
_HUNDREDFOLD = 100.0
_TENFOLD = 10.0


def _ratio(large: float, small: float, side: str, difference: str) -> str:
    """Say a ratio the way it is spoken."""
    if small <= 0:
        return f"{difference} too {side}"
    ratio = large / small
    if ratio >= _HUNDREDFOLD:
        decades = min(9, round(math.log10(ratio)))
        return f"{_COUNT[decades]} decades too {side}"
    if ratio >= _TENFOLD:
        return f"{ratio:.0f} times too {side}"
    if ratio >= _TWICE:
        return f"{_COUNT[min(9, round(ratio))]} times too {side}"
    return f"{difference} too {side}"
