"""Every command, setting and route has its sentence in the docs."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from ohmcensus.cli import commands
from ohmcensus.services.at_hand.settings import Settings

# Where a setting is told of: its name in the store, and the words of the guide.
SETTINGS = {
    "technician": "technicians",
    "ambient_celsius": "Temperature at the shelf",
    "bag": "bag",
    "profile": "profile chosen in Setup",
    "own_profiles": "as a profile",
    "confirmations": "Texts to be checked",
    "firm": "*The firm* stands at the head",
    "hour_price": "the firm's hour",
    "call_out_price": "visit stand in Setup",
    "live_penalty": "Minutes added to a live test",
}


def test_every_command_is_told_of() -> None:
    told = Path("docs/commands.md").read_text(encoding="utf-8")
    assert [name for name in commands.commands if f"ohmcensus {name}" not in told] == []


def test_every_setting_is_told_of() -> None:
    guide = " ".join(Path("docs/guide.md").read_text(encoding="utf-8").split())
    assert set(SETTINGS) == set(Settings.model_fields)
    assert [name for name, words in SETTINGS.items() if words not in guide] == []


def test_every_route_is_told_of() -> None:
    paths = json.loads(Path("docs/formats/openapi.gen.json").read_text(encoding="utf-8"))["paths"]
    silent = [
        f"{verb} {path}"
        for path, verbs in paths.items()
        for verb, row in verbs.items()
        if not (row.get("summary") and row.get("description"))
    ]
    assert silent == []


@pytest.mark.parametrize("page", sorted(Path("docs").glob("*.md")), ids=lambda page: page.stem)
def test_every_page_is_linked_from_the_readme(page: Path) -> None:
    assert f"docs/{page.name}" in Path("README.md").read_text(encoding="utf-8")
