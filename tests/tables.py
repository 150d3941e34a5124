"""What every test of a sheet reads under every fault: seconds to work out, and the same for whoever asks.

Workers share what is dear about them, and each keeps the tables that it had.
"""

from __future__ import annotations

from functools import cache

from ohmcensus.core.diagnosis.outcomes import OutcomeTable
from ohmcensus.core.machine.dictionary import Dictionary
from ohmcensus.core.sheet import Sheet
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.at_hand.sheets import find_sheet
from ohmcensus.storage.dictionaries import kept_dictionary
from tests.run_folder import RUN

FOLDER = RUN / "tables"


@cache
def dictionary_of(sheet: Sheet) -> Dictionary:
    return kept_dictionary(FOLDER, sheet)


def table(sheet: Sheet | str = "fl7-u") -> OutcomeTable:
    return table_of(FOLDER, find_sheet(sheet) if isinstance(sheet, str) else sheet)
