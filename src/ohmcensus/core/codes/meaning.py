"""What codes mean on one machine: the technician's own table, checked against scheme and parts."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.codes.scheme import Scheme
from ohmcensus.core.errors import InputError
from ohmcensus.core.text.names import nearest
from ohmcensus.core.text.trimmed import Trimmed

Weight = Annotated[float, Field(gt=0, le=1, allow_inf_nan=False, strict=True)]


class Meaning(BaseModel):
    """What one code says.

    Attributes
    ----------
    code
        As the scheme gives it: "89", "6/9", "3-2".
    words
        Meaning.
    suspects
        Weight by part, 1 for "it is this one"; they need not add up.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    code: Annotated[str, Trimmed(20, 1)]
    words: Annotated[str, Trimmed(300, 1)]
    suspects: Mapping[str, Weight] = Field(default_factory=dict)


def meanings_from(rows: Iterable[Meaning], scheme: Scheme, parts: Collection[str]) -> tuple[Meaning, ...]:
    """Return a table of meanings, checked.

    Parameters
    ----------
    rows
        In any order.
    scheme
        The scheme that must be able to show every code.
    parts
        Ids of the machine's parts.

    Raises
    ------
    InputError
        If a code stands twice, cannot be shown, or a suspect is no part; the message names the row.
    """
    found: dict[str, Meaning] = {}
    for number, row in enumerate(rows, start=1):
        try:
            code = scheme.decode(scheme.encode(row.code))
        except InputError as error:
            raise InputError(what=f"row {number}: {error.what}", remedy=error.remedy, field="code") from None
        if code in found:
            what = f"row {number}: code {code} stands twice"
            raise InputError(what=what, remedy="keep one row for each code", field="code")
        for part in row.suspects:
            _refuse_unknown(part, parts, number)
        found[code] = row.model_copy(update={"code": code})
    return tuple(found.values())


def _refuse_unknown(part: str, parts: Collection[str], number: int) -> None:
    if part in parts:
        return
    close = nearest(part, parts)
    remedy = f"did you mean '{close}'?" if close else f"parts are {', '.join(parts)}"
    raise InputError(what=f"row {number}: no part '{part[:40]}' on this sheet", remedy=remedy, field="suspects")
