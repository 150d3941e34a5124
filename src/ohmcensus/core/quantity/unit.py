"""The units a technician reads in, how people spell them, and which prefixes each may carry."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum


class Unit(StrEnum):
    """Unit of a value; the member's value is its name in commands and JSON."""

    OHM = "ohm"
    VOLT = "volt"
    AMPERE = "ampere"
    FARAD = "farad"
    CELSIUS = "celsius"
    HERTZ = "hertz"
    METRE = "metre"
    WATT = "watt"
    SECOND = "second"

    @property
    def notation(self) -> Notation:
        """How this unit is written and read."""
        return _NOTATIONS[self]

    @property
    def symbol(self) -> str:
        """Return the symbol as printed behind a number."""
        return self.notation.symbol


@dataclass(frozen=True, slots=True)
class Notation:
    """Spelling of one unit.

    Parameters
    ----------
    symbol
        As printed.
    plural
        As spoken of in a sentence: "ohms".
    spellings
        Lower-case words accepted behind a number, besides none at all.
    prefixes
        Prefix spelling to its factor, case kept; the empty prefix is always there.
    whole_words
        Spellings with a factor of their own that no prefix precedes ("mfd").
    decimal_letter
        Letter that may stand for the decimal mark ("4R7"), lower case, empty where none does.
    shown
        Prefixes used in print, ascending: (factor, prefix).
    may_be_negative
        Whether a minus is a value rather than a mistake.
    """

    symbol: str
    plural: str
    spellings: frozenset[str]
    prefixes: Mapping[str, Decimal]
    whole_words: Mapping[str, Decimal]
    decimal_letter: str
    shown: tuple[tuple[float, str], ...]
    may_be_negative: bool = False

    def factor(self, tail: str) -> Decimal | None:
        """Return the factor that the text behind a number stands for, or None if it is not this unit's."""
        word = tail.casefold()
        if word in self.whole_words:
            return self.whole_words[word]
        for prefix in sorted(self.prefixes, key=len, reverse=True):
            rest = tail[len(prefix) :].casefold()
            if tail.startswith(prefix) and (not rest or rest in self.spellings):
                return self.prefixes[prefix]
        return None


def _prefixes(letters: str) -> dict[str, Decimal]:
    """Return the spellings of the named prefixes, the empty one included."""
    spelled = {
        "p": ("p", "pico"),
        "n": ("n", "nano"),
        "u": ("u", "μ", "U", "micro"),
        "m": ("m", "milli"),
        "k": ("k", "K", "kilo"),
        "M": ("M", "meg", "Meg", "MEG", "mega", "Mega"),
        "G": ("G", "giga", "Giga"),
    }
    exponents = {"p": -12, "n": -9, "u": -6, "m": -3, "k": 3, "M": 6, "G": 9}
    found = {"": Decimal(1)}
    for letter in letters:
        found |= {word: Decimal(1).scaleb(exponents[letter]) for word in spelled[letter]}
    return found


_LENGTHS = {
    "m": "1",
    "metre": "1",
    "metres": "1",
    "meter": "1",
    "meters": "1",
    "mm": "0.001",
    "cm": "0.01",
    "km": "1000",
    "in": "0.0254",
    "inch": "0.0254",
    '"': "0.0254",
    "ft": "0.3048",
}

_NOTATIONS: dict[Unit, Notation] = {
    Unit.OHM: Notation(
        symbol="Ω",
        plural="ohms",
        spellings=frozenset({"ω", "ohm", "ohms", "r"}),
        prefixes=_prefixes("mkMG"),
        whole_words={},
        decimal_letter="r",
        shown=((1.0, ""), (1e3, "k"), (1e6, "M"), (1e9, "G")),
    ),
    Unit.VOLT: Notation(
        symbol="V",
        plural="volts",
        spellings=frozenset({"v", "volt", "volts", "vac", "vdc", "v~", "v="}),
        prefixes=_prefixes("umk"),
        whole_words={},
        decimal_letter="v",
        shown=((1e-3, "m"), (1.0, ""), (1e3, "k")),
        may_be_negative=True,
    ),
    Unit.AMPERE: Notation(
        symbol="A",
        plural="amperes",
        spellings=frozenset({"a", "amp", "amps", "ampere", "amperes"}),
        prefixes=_prefixes("numk"),
        whole_words={},
        decimal_letter="a",
        shown=((1e-3, "m"), (1.0, "")),
        may_be_negative=True,
    ),
    Unit.FARAD: Notation(
        symbol="F",
        plural="farads",
        spellings=frozenset({"f", "fd", "farad", "farads"}),
        prefixes=_prefixes("pnum"),
        whole_words={"mfd": Decimal("0.000001"), "mmfd": Decimal("0.000000000001")},
        decimal_letter="",
        shown=((1e-12, "p"), (1e-9, "n"), (1e-6, "µ"), (1.0, "")),
    ),
    Unit.CELSIUS: Notation(
        symbol="°C",
        plural="degrees Celsius",
        spellings=frozenset({"c", "°c", "°", "degc", "celsius"}),
        prefixes=_prefixes(""),
        whole_words={},
        decimal_letter="",
        shown=((1.0, ""),),
        may_be_negative=True,
    ),
    Unit.HERTZ: Notation(
        symbol="Hz",
        plural="hertz",
        spellings=frozenset({"hz", "hertz"}),
        prefixes=_prefixes("kM"),
        whole_words={},
        decimal_letter="",
        shown=((1.0, ""), (1e3, "k"), (1e6, "M")),
    ),
    Unit.METRE: Notation(
        symbol="m",
        plural="metres",
        spellings=frozenset(),
        prefixes=_prefixes(""),
        whole_words={word: Decimal(factor) for word, factor in _LENGTHS.items()},
        decimal_letter="",
        shown=((1e-3, "m"), (1.0, "")),
    ),
    Unit.SECOND: Notation(
        symbol="s",
        plural="seconds",
        spellings=frozenset({"s", "sec", "second", "seconds"}),
        prefixes=_prefixes("um"),
        whole_words={},
        decimal_letter="",
        shown=((1e-3, "m"), (1.0, "")),
    ),
    Unit.WATT: Notation(
        symbol="W",
        plural="watts",
        spellings=frozenset({"w", "watt", "watts"}),
        prefixes=_prefixes("mkM"),
        whole_words={},
        decimal_letter="w",
        shown=((1e-3, "m"), (1.0, ""), (1e3, "k")),
    ),
}
