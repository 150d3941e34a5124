"""A price as it is typed."""

from __future__ import annotations

import re

from ohmcensus.core.errors import InputError

MOST = 100_000.0
_PRICE = re.compile(r"\d{1,6}([.,]\d{1,2})?")


def parse_price(text: str, field: str = "price") -> float:
    """Return a price in the currency of the firm; point or comma before the cents.

    Raises
    ------
    InputError
        If it is written in words, or is no figure up to 100 000.
    """
    said = text.strip()
    if not _PRICE.fullmatch(said) or float(said.replace(",", ".")) > MOST:
        what = f"'{said[:40]}' is not a price"
        raise InputError(what=what, remedy="type it in figures, e.g. 38.50", field=field)
    return float(said.replace(",", "."))
