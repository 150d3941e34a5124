"""A text that is trimmed as it comes in, and refused where it was too long before that, as its schema says."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import GetCoreSchemaHandler, StringConstraints
from pydantic_core import CoreSchema, PydanticKnownError, core_schema


@dataclass(frozen=True, slots=True)
class Trimmed:
    """Of ``Annotated[str, Trimmed(most, least)]``: signs at most and at least, spaces around them not counted."""

    most: int
    least: int = 0

    def __get_pydantic_core_schema__(self, _source: Any, _handler: GetCoreSchemaHandler) -> CoreSchema:
        """Return the schema of the trimmed text behind a look at its length as it came."""
        inner = core_schema.str_schema(
            strip_whitespace=True, max_length=self.most, min_length=self.least if self.least else None
        )
        return core_schema.no_info_before_validator_function(self._not_longer, inner)

    def _not_longer(self, text: Any) -> Any:
        if isinstance(text, str) and len(text) > self.most:
            raise PydanticKnownError("string_too_long", {"max_length": self.most})  # noqa: EM101 - a kind, no message
        return text


# The lengths of what people write, one name each.
Title = Annotated[str, Trimmed(120, 1)]
Caption = Annotated[str, Trimmed(120)]
Phrase = Annotated[str, Trimmed(200, 1)]
Sentence = Annotated[str, Trimmed(300, 1)]
Words = Annotated[str, Trimmed(300)]
# What names a part, a plug, a state, a step in a sheet.
Slug = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")]
