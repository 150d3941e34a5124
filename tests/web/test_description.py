"""What is committed of the API's description and the job format is what the code says."""

from __future__ import annotations

import json
from collections import Counter
from enum import StrEnum
from pathlib import Path
from typing import Any

from openapi_spec_validator import validate
from pydantic import BaseModel
from tests.examples import examples

from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app
from ohmcensus.web.describe import describe


def test_the_committed_description_is_current(tmp_path: Path) -> None:
    describe(tmp_path)
    for made in tmp_path.iterdir():
        kept = Path("docs/formats") / made.name
        assert kept.read_text(encoding="utf-8") == made.read_text(encoding="utf-8"), "run make types"


def test_the_examples_that_the_interface_is_tested_by_are_current(tmp_path: Path) -> None:
    examples(tmp_path)
    for made in tmp_path.iterdir():
        kept = Path("ui/tests/examples") / made.name
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


def operations() -> dict[str, dict[str, Any]]:
    paths = json.loads(Path("docs/formats/openapi.gen.json").read_text(encoding="utf-8"))["paths"]
    return {f"{verb} {path}": row for path, verbs in paths.items() for verb, row in verbs.items()}


def test_the_description_is_one_by_the_standard() -> None:
    """OpenAPI 3.1 (https://spec.openapis.org/oas/v3.1.0), by the reference validator of its Python community."""
    validate(json.loads(Path("docs/formats/openapi.gen.json").read_text(encoding="utf-8")))


def test_every_operation_keeps_our_rules() -> None:
    """The rules of docs/formats/api-rules.md."""
    found = operations()
    assert len({row["operationId"] for row in found.values()}) == len(found), "an operation's name is its own"
    for name, row in found.items():
        assert row.get("summary"), name
        good = {code: each for code, each in row["responses"].items() if code.startswith("2")}
        assert good, f"{name} says nothing of what it answers"
        assert all(each.get("content") for code, each in good.items() if code != "204"), name
        bad = {code: each for code, each in row["responses"].items() if code.startswith("4")}
        assert all("Problem" in json.dumps(each) for each in bad.values()), name
        assert "/new/" not in name, "no id that is none"
        is_look = name.startswith("get ")
        assert not (is_look and {"400", "409", "413", "415"} & row["responses"].keys()), name
        assert ("404" in row["responses"]) == ("{" in name), name
        assert name.startswith("post ") or "201" not in row["responses"], name


def test_no_body_takes_what_it_does_not_know() -> None:
    schemas = json.loads(Path("docs/formats/openapi.gen.json").read_text(encoding="utf-8"))["components"]["schemas"]
    bodies = {
        kind["schema"]["$ref"].rpartition("/")[2]
        for row in operations().values()
        for kind in row.get("requestBody", {}).get("content", {}).values()
        if "$ref" in kind["schema"]
    }
    assert {name for name in bodies if schemas[name].get("additionalProperties") is not False} == set()
