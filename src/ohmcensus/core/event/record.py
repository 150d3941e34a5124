"""What every record is built of."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, StringConstraints

from ohmcensus.core.trimmed import Trimmed

Name = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_.]{0,59}$")]
Words = Annotated[str, Trimmed(300)]
Said = Annotated[str, Trimmed(300, 3)]
RowId = Annotated[str, StringConstraints(min_length=1, max_length=60)]


class Record(BaseModel):
    """Something that happened; its kind names it in files."""

    model_config = ConfigDict(frozen=True, extra="forbid")
