"""The outcomes of every test of a sheet under every fault: worked out once, by one thread, whoever asks meanwhile."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock
from typing import TYPE_CHECKING

from ohmcensus.core.diagnosis.outcomes import OutcomeTable, outcome_table
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.dictionaries import has_dictionary, kept_dictionary

if TYPE_CHECKING:
    from pathlib import Path

MOST_TABLES = 16
_TABLES: OrderedDict[Sheet, OutcomeTable] = OrderedDict()
_MAKING: dict[Sheet, Lock] = {}
# Several threads answer at once.
_LOCK = Lock()


def table_of(folder: Path, sheet: Sheet) -> OutcomeTable:
    """Return the outcomes of a sheet; who asks while they are worked out waits for the one who does."""
    found = _at_hand(sheet)
    if found is not None:
        return found
    with _LOCK:
        making = _MAKING.setdefault(sheet, Lock())
    with making:
        found = _at_hand(sheet)
        if found is None:
            found = outcome_table(sheet, kept_dictionary(folder, sheet))
            with _LOCK:
                _TABLES[sheet] = found
                while len(_TABLES) > MOST_TABLES:
                    _TABLES.popitem(last=False)
                _MAKING.pop(sheet, None)
    return found


def is_being_worked_out(context: Context, sheet: Sheet) -> bool:
    """Tell whether the outcomes of a sheet take seconds yet: they are worked out beside the answers then."""
    if context.beside is None or _at_hand(sheet) is not None or has_dictionary(context.store.folder, sheet):
        return False
    context.later(("table", sheet.id, hash(sheet)), lambda: work_out(context, sheet))
    return True


def work_out(context: Context, sheet: Sheet) -> None:
    """Work the outcomes of a sheet out and keep what was dear about them."""
    table_of(context.store.folder, sheet)


def _at_hand(sheet: Sheet) -> OutcomeTable | None:
    with _LOCK:
        found = _TABLES.get(sheet)
        if found is not None:
            _TABLES.move_to_end(sheet)
        return found
