"""What is committed of the API's description and the job format is what the code says."""

from __future__ import annotations

from enum import StrEnum
from pathlib import Path

from pydantic import BaseModel

from ohmcensus.web.describe import describe


def test_the_committed_description_is_current(tmp_path: Path) -> None:
    describe(tmp_path)
    for made in tmp_path.iterdir():
        kept = Path("docs/formats") / made.name
        assert kept.read_text(encoding="utf-8") == made.read_text(encoding="utf-8"), "run make types"


def test_no_two_views_share_a_name() -> None:
    """The description of the API would silently keep the last of them."""
    classes: dict[str, set[str]] = {}
    todo: list[type] = [BaseModel, StrEnum]
    while todo:
        children: list[type] = todo.pop().__subclasses__()
        todo += children
        for child in children:
            is_view = child.__module__.startswith("ohmcensus.services")
            if is_view or (issubclass(child, StrEnum) and child.__module__.startswith("ohmcensus")):
                classes.setdefault(child.__name__, set()).add(child.__module__)
    assert {name: where for name, where in classes.items() if len(where) > 1} == {}
