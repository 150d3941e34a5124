"""What is committed of the API's description and the job format is what the code says."""

from __future__ import annotations

from collections import Counter
from enum import StrEnum
from pathlib import Path

from pydantic import BaseModel

from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app
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


def test_a_subject_has_at_most_six_routes(context: Context) -> None:
    """A blueprint that grows past that is two subjects."""
    rules = create_app(context).url_map.iter_rules()
    routes = Counter(rule.endpoint.partition(".")[0] for rule in rules if "." in rule.endpoint)
    assert {name: count for name, count in routes.items() if count > 6} == {}
