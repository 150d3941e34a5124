"""Text to indication: engineering suffixes, letters for the decimal mark, decimal comma, OL, ``>`` and ``<``.

Grammar, after Unicode folding (NFKC, so that the ohm sign and the micro sign have one form each)::

    reading  := [">" | "<" | ">=" | "<=" | "over" | "under"] figure | over-range
              | figure ".." (figure | over-range) [moved]     # a display that moved
    moved    := "wiggled" | "turned" | "moved"               # asked for where 12..3 may be a slip for 12.3
    figure   := [sign] digits [mark digits] [exponent] [prefix] [unit]
              | [sign] [digits] letter digits [unit]          # 2k2, 4R7, R47, after IEC 60062
    mark     := "." | ","

All arithmetic is decimal until the last step, so 2.2k, 2k2 and 2200 are the same float.
"""

from __future__ import annotations

import math
import re
import unicodedata
from dataclasses import replace
from decimal import Decimal, InvalidOperation

from ohmcensus.core.errors import ReadingTextError
from ohmcensus.core.quantity.indication import Bound, Indication
from ohmcensus.core.quantity.unit import Unit

LONGEST_TEXT = 40
LARGEST_VALUE = Decimal("1e15")
ABSOLUTE_ZERO_CELSIUS = Decimal("-273.15")

_BOUND_WORDS = {
    ">=": Bound.ABOVE,
    "<=": Bound.BELOW,
    ">": Bound.ABOVE,
    "<": Bound.BELOW,
    "≥": Bound.ABOVE,
    "≤": Bound.BELOW,
    "over ": Bound.ABOVE,
    "above ": Bound.ABOVE,
    "under ": Bound.BELOW,
    "below ": Bound.BELOW,
}
_MOVED = ".."
_MOVED_WORD = re.compile(r"\s+(?:wiggled|turned|moved)$", re.IGNORECASE)
_BARE = re.compile(r"(?:>=|<=|[<>≥≤]|(?:over|above|under|below) )?\s*[-+]?(?:\d+[.,]?\d*|[.,]\d+)", re.ASCII)
_OVER_RANGE = re.compile(r"[o0]\.?l\.?|\.[o0]l|o l|over[- ]?range|over[- ]?load|infinite|∞", re.IGNORECASE)
_FIGURE = re.compile(r"([+-]?)(\d+[.,]?\d*|[.,]\d+)(?:[eE]([+-]?\d{1,4}))?\s*(.*)", re.ASCII)
_LETTER_MARK = re.compile(r"([+-]?)(\d*)([a-zA-Zμ])(\d+)\s*(\D*)", re.ASCII)
_EXAMPLES = {
    Unit.OHM: "25.9, 2k2, >299M or OL",
    Unit.FARAD: "4.7u or 470n",
    Unit.CELSIUS: "21 or -4.5",
    Unit.METRE: "12mm or 1.8",
}


def parse_indication(text: str, unit: Unit, *, over_range_texts: frozenset[str] = frozenset()) -> Indication:
    """Read what a person typed from a display.

    Parameters
    ----------
    text
        As typed, at most 40 characters.
    unit
        Unit that is expected; a text that names another one is refused.
    over_range_texts
        Further displays that mean over-range on the meter in hand: a lone ``1`` on simple ones.

    Returns
    -------
    Indication
        Value in the SI base of ``unit``.

    Raises
    ------
    ReadingTextError
        With what is wrong and what to type instead.
    """
    folded = _folded(text, unit)
    told = _MOVED_WORD.sub("", folded)
    if _MOVED in told:
        return _moved(told, unit, over_range_texts, is_told=told != folded)
    folded = told
    if _OVER_RANGE.fullmatch(folded) or folded.replace(",", ".") in over_range_texts:
        return Indication(None, unit, Bound.ABOVE)
    bound, rest = _split_bound(folded)
    if bound is Bound.ABOVE and _OVER_RANGE.fullmatch(rest):
        return Indication(None, unit, Bound.ABOVE)
    number, last_place = _figure(rest, folded, unit)
    _refuse_impossible(number, folded, unit)
    return Indication(float(number), unit, bound, float(last_place))


def with_scale(text: str, scale: str, over_range_texts: frozenset[str] = frozenset()) -> str:
    """Return a reading with the scale of its instrument behind every bare figure: "0.4" in MΩ is "0.4M".

    Parameters
    ----------
    text
        As typed.
    scale
        What is put behind it: "M", "m", "u", "mm"; empty leaves it as it is.
    over_range_texts
        Displays that mean over-range and are no figures.
    """
    typed = text.strip()
    if not scale or len(typed) > LONGEST_TEXT or typed.replace(",", ".") in over_range_texts:
        return text
    word = _MOVED_WORD.search(typed)
    typed = _MOVED_WORD.sub("", typed)
    ends = [" ".join(unicodedata.normalize("NFKC", end).replace("−", "-").split()) for end in typed.split(_MOVED)]
    if _BARE.fullmatch(ends[-1]) is None and len(ends) == 1:
        return text
    scaled = _MOVED.join(f"{end}{scale}" if _BARE.fullmatch(end.casefold()) else end for end in ends)
    return scaled + (word[0] if word else "")


def _moved(folded: str, unit: Unit, over_range_texts: frozenset[str], *, is_told: bool) -> Indication:
    """Return a display that moved from one figure to another, or to over-range; a unit behind the last is both's."""
    first, _, last = (end.strip() for end in folded.partition(_MOVED))
    if first.isdigit() and last.isdigit() and not is_told:
        remedy = f"type {first}.{last}, or '{folded} wiggled' for a reading that moved"
        raise ReadingTextError(what=f"'{folded}' is not a reading", remedy=remedy, field="reading")
    tail = last.lstrip("+-0123456789.,").strip()
    if _BARE.fullmatch(first) and last[:1].isdigit() and not _BARE.fullmatch(last):
        first = f"{first}{tail}"
    start = parse_indication(first, unit, over_range_texts=over_range_texts)
    end = parse_indication(last, unit, over_range_texts=over_range_texts)
    is_whole = end.value is None or end.bound is Bound.EXACT
    if start.value is None or start.bound is not Bound.EXACT or not is_whole:
        what = f"'{folded}' is not a range of a reading that moved"
        raise ReadingTextError(what=what, remedy="type both ends, e.g. 0.2..38 or 0.5..OL", field="reading")
    until = math.inf if end.value is None else end.value
    return replace(start, until=until, last_place=max(start.last_place, end.last_place))


def _folded(text: str, unit: Unit) -> str:
    """Return the text in one Unicode form with single spaces, refusing the empty and the endless."""
    if len(text) > LONGEST_TEXT:
        what = "that is far too long for a reading"
        raise ReadingTextError(what=what, remedy="type only what the meter shows", field="reading")
    folded = " ".join(unicodedata.normalize("NFKC", text).replace("−", "-").replace("–", "-").split())
    if not folded:
        raise ReadingTextError(what="no reading typed", remedy=f"type {_example(unit)}", field="reading")
    return folded


def _split_bound(folded: str) -> tuple[Bound, str]:
    """Split a leading comparison from the rest."""
    for word, bound in _BOUND_WORDS.items():
        if folded.casefold().startswith(word):
            return bound, folded[len(word) :].strip()
    return Bound.EXACT, folded


def _figure(rest: str, folded: str, unit: Unit) -> tuple[Decimal, Decimal]:
    """Return the value and the weight of its last digit, both in the SI base."""
    if match := _LETTER_MARK.fullmatch(rest):
        sign, whole, letter, fraction, tail = match.groups()
        notation = unit.notation
        known = notation.decimal_letter and letter.casefold() == notation.decimal_letter
        factor_of_letter = Decimal(1) if known else notation.prefixes.get(letter)
        tail_is_unit = not tail or notation.factor(tail) == 1
        if factor_of_letter is not None and tail_is_unit:
            return _scaled(f"{sign}{whole or '0'}.{fraction}", 0, factor_of_letter, folded, unit)
    if match := _FIGURE.fullmatch(rest):
        sign, digits, exponent, tail = match.groups()
        factor = _factor(tail.replace(" ", ""), folded, unit)
        return _scaled(f"{sign}{digits.replace(',', '.')}", int(exponent or 0), factor, folded, unit)
    raise _not_a_reading(folded, unit)


def _factor(tail: str, folded: str, unit: Unit) -> Decimal:
    """Return the factor for the text behind the digits; 0 marks Fahrenheit, which is no mere factor."""
    factor = unit.notation.factor(tail)
    if factor is not None:
        return factor
    if unit is Unit.CELSIUS and tail.casefold() in {"f", "°f", "degf"}:
        return Decimal(0)
    for other in Unit:
        if other is not unit and other is not Unit.METRE and other.notation.factor(tail) is not None:
            what = f"'{folded}' is in {other.notation.plural} where {unit.notation.plural} belong"
            raise ReadingTextError(what=what, remedy=f"type {_example(unit)}", field="reading")
    raise _not_a_reading(folded, unit)


def _scaled(digits: str, exponent: int, factor: Decimal, folded: str, unit: Unit) -> tuple[Decimal, Decimal]:
    """Return digits times a power of ten times a factor, and the weight of the last digit."""
    try:
        number = Decimal(digits).scaleb(exponent)
    except InvalidOperation:  # pragma: no cover - the grammar admits digits only
        raise _not_a_reading(folded, unit) from None
    places = number.as_tuple().exponent
    last_place = Decimal(1).scaleb(places if isinstance(places, int) else 0)
    if factor == 0:
        return (number - 32) * 5 / 9, last_place * 5 / 9
    return number * factor, last_place * factor


def _refuse_impossible(number: Decimal, folded: str, unit: Unit) -> None:
    """Refuse what no meter can show."""
    if abs(number) > LARGEST_VALUE:
        what = f"'{folded}' is more than any meter shows"
        raise ReadingTextError(what=what, remedy="for over-range type OL or > and the range", field="reading")
    if number < 0 and not unit.notation.may_be_negative:
        remedy = f"{unit.notation.plural} are never negative; check the leads"
        if unit is Unit.OHM:
            remedy = "ohms are never negative; a minus means voltage on the part: prove it dead, then read again"
        raise ReadingTextError(what=f"'{folded}' cannot be", remedy=remedy, field="reading")
    if unit is Unit.CELSIUS and number < ABSOLUTE_ZERO_CELSIUS:
        what = f"'{folded}' is below absolute zero"
        raise ReadingTextError(what=what, remedy=f"type {_example(unit)}", field="reading")


def _not_a_reading(folded: str, unit: Unit) -> ReadingTextError:
    """Build the error for a text outside the grammar."""
    return ReadingTextError(what=f"'{folded}' is not a reading", remedy=f"type {_example(unit)}", field="reading")


def _example(unit: Unit) -> str:
    """Return a few readings as they may be typed in this unit."""
    return _EXAMPLES.get(unit, f"a number such as 12.5 {unit.symbol}")
