"""What every record is built of."""

from __future__ import annotations

from typing import Annotated, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints

from ohmcensus.core.text.trimmed import Trimmed

Name = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_.]{0,59}$")]
Said = Annotated[str, Trimmed(300, 3)]
# Fewer signs than this, or the same sign over and over, are no reason (ours).
SHORTEST_REASON = 10


def is_reason(text: str) -> bool:
    """Tell whether a text says why: ten signs at least, not all alike."""
    said = text.strip()
    return len(said) >= SHORTEST_REASON and len(set(said.casefold().replace(" ", ""))) > 1


def _reason(text: str) -> str:
    if not is_reason(text):
        msg = f"say why in at least {SHORTEST_REASON} characters"
        raise ValueError(msg)
    return text


Because = Annotated[str, Trimmed(300, SHORTEST_REASON), AfterValidator(_reason)]
RowId = Annotated[str, StringConstraints(min_length=1, max_length=60)]


class Record(BaseModel):
    """Something that happened; its kind names it in files.

    ``filled_in`` names the fields that are filled in when it is stored, where its writer left them out.
    """

    filled_in: ClassVar[tuple[str, ...]] = ()

    model_config = ConfigDict(frozen=True, extra="forbid")
