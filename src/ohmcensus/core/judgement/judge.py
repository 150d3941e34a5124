"""One reading, judged and put into words."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.judgement.instrument import Use
from ohmcensus.core.judgement.verdict import Verdict, verdict_of
from ohmcensus.core.machine import MachineTest
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.quantity import Indication, Interval, show_value
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
    """

    verdict: Verdict
    interval: Interval
    window: Window | None
    blind_to: tuple[FaultMode, ...]
    sentence: str
    remark: str


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
    verdict = verdict_of(use.indication, interval, test.window.interval)
    blind = tuple(dict.fromkeys((*test.blind_to, *(use.weaker.blind_to if use.weaker else ()))))
    return Judgement(
        verdict=verdict,
        interval=interval,
        window=test.window,
        blind_to=blind,
        sentence=_sentence(verdict, use, test.window),
        remark=_with_plug_on(verdict, interval, test) or _remark(verdict, use, test, blind),
    )


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


def _sentence(verdict: Verdict, use: Use, window: Window) -> str:
    """Put the outcome into one sentence."""
    should = window_with_basis(window)
    lesser = f"; {use.weaker.why}" if use.weaker and use.weaker.blind_to and verdict is Verdict.INSIDE else ""
    return {
        Verdict.INSIDE: f"inside {should}{lesser}",
        Verdict.OUTSIDE_LOW: f"outside, low: should read {should}",
        Verdict.OUTSIDE_HIGH: f"outside, high: should read {should}",
        Verdict.UNSURE: f"unsure: within the meter's error of the edge of {should}",
        Verdict.OPEN: f"open: should read {should}",
        Verdict.SHORT: f"short: should read {should}",
        Verdict.NOT_JUDGED: should,
    }[verdict]


def _remark(verdict: Verdict, use: Use, test: MachineTest, blind: tuple[FaultMode, ...]) -> str:
    """Return the few words for the line."""
    if verdict in {Verdict.OUTSIDE_LOW, Verdict.OUTSIDE_HIGH}:
        return how_far(use.indication, test.window)
    if verdict is Verdict.INSIDE:
        if use.weaker is not None and use.weaker.blind_to:
            return "proves little: by ohmmeter"
        return "blind to a leak" if FaultMode.LEAK in blind and test.touches_chassis else ""
    return {
        Verdict.UNSURE: "within the meter's error",
        Verdict.OPEN: "open circuit",
        Verdict.SHORT: "shorted",
    }.get(verdict, "")


def how_far(indication: Indication, window: Window) -> str:
    """Say how far outside a reading lies: "six times too low", "three decades too high"."""
    value = indication.value
    lo, hi = window.interval.finite_lo, window.interval.finite_hi
    if value is None:
        return "over-range"
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
