"""A model whose JSON Schema is worked out once: the API's description asks for some of them dozens of times."""

from __future__ import annotations

import copy
from functools import cache
from typing import Any

from pydantic import BaseModel


class Described(BaseModel):
    """Base of the views and problems that many operations answer with."""

    @classmethod
    def model_json_schema(cls, *args: Any, **kwargs: Any) -> dict[str, Any]:
        """Return the schema, computed at the first call with these arguments."""
        return copy.deepcopy(_schema(cls, args, tuple(sorted(kwargs.items(), key=lambda item: item[0]))))


@cache
def _schema(model: type[Described], args: tuple[Any, ...], kwargs: tuple[tuple[str, Any], ...]) -> dict[str, Any]:
    return super(Described, model).model_json_schema(*args, **dict(kwargs))
