"""What every record is built of."""

from __future__ import annotations

import re
from typing import Annotated, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints

from ohmcensus.core.text.trimmed import Trimmed

Name = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_.]{0,59}$")]
Said = Annotated[str, Trimmed(300, 3)]
# Fewer signs than these, or one word over and over, are no reason (ours).
SHORTEST_REASON, SHORTEST_WORD = 10, 3


def is_reason(text: str) -> bool:
    """Tell whether a text says why: ten signs at least, in them two different words of three letters or more."""
    words = {word for word in re.findall(r"[^\W\d_]+", text.casefold()) if len(word) >= SHORTEST_WORD}
    return len(text.strip()) >= SHORTEST_REASON and len(words) > 1


def _long_enough(text: str) -> str:
    if len(text) < SHORTEST_REASON:
        msg = "say in a few words why"
        raise ValueError(msg)
    return text


# What makes a reason is asked where it is given (core.safety), so that what was stored before is read as it stands.
Because = Annotated[str, Trimmed(300), AfterValidator(_long_enough)]
RowId = Annotated[str, StringConstraints(min_length=1, max_length=60)]


class Record(BaseModel):
    """Something that happened; its kind names it in files.

    ``filled_in`` names the fields that are filled in when it is stored, where its writer left them out.
    """

    filled_in: ClassVar[tuple[str, ...]] = ()

    model_config = ConfigDict(frozen=True, extra="forbid")
