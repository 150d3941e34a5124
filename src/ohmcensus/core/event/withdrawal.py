"""Taking back a record that was written in error."""

from __future__ import annotations

from typing import Literal

from ohmcensus.core.event.record import Record, RowId


class RecordWithdrawn(Record):
    """A record is taken back: it stays in the log, and counts for nothing any more."""

    kind: Literal["record_withdrawn"] = "record_withdrawn"
    record: RowId
