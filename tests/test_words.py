"""The words of the interface, of the code's sentences and of the docs: what may not stand (docs/words.md)."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

LABELS = {"Keep", "Kept", "Leave", "Note it", "Take it", "Take it back", "Bring in", "Drop", "Begin", "Begin anew"}
PHRASES = (
    r"\breckon",
    r"\bbring in from\b",
    r"\bbrought in\b",
    r"\bis no (number|price|current|code|file|text|sheet|picture|value|weight)\b",
    r"\bnought\b",
    r"\banew\b",
    r"\bnobody named\b",
    r"\bparts scatter\b",
    r"\bstood at line\b",
    r"\bwhich piece sits\b",
    r"\b1 of \d\d\d?\b",
    r"\bbody\.[a-z_]+\.[a-z_]+",
)
ODD = re.compile("|".join(PHRASES), re.IGNORECASE)
SOURCE = sorted(Path("src/ohmcensus").rglob("*.py"))


def labels() -> Iterator[tuple[str, str]]:
    """Yield every text of the interface with its file."""
    for file in sorted(Path("ui/src/words").glob("*.ts")):
        text = re.sub(r"/\*\*.*?\*/|//[^\n]*", "", file.read_text(encoding="utf-8"), flags=re.DOTALL)
        yield from ((file.name, found[1]) for found in re.finditer(r'["`]((?:[^"`\\]|\\.)*)["`]', text))


def sentences(file: Path) -> Iterator[str]:
    """Yield every text of a module that is no docstring and no key."""
    tree = ast.parse(file.read_text(encoding="utf-8"))
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        if (
            isinstance(node, ast.Constant)
            and isinstance(node.value, str)
            and id(node) not in docs
            and " " in node.value
        ):
            yield node.value


def test_buttons_say_what_buttons_say_everywhere() -> None:
    assert [row for row in labels() if row[1] in LABELS] == []


def test_no_text_of_the_interface_is_odd() -> None:
    assert [row for row in labels() if ODD.search(row[1])] == []


def test_no_sentence_of_the_code_is_odd() -> None:
    assert [(file.name, text) for file in SOURCE for text in sentences(file) if ODD.search(text)] == []


@pytest.mark.parametrize("page", ["README.md", "docs/guide.md", "docs/commands.md"])
def test_no_page_for_users_is_odd(page: str) -> None:
    lines = Path(page).read_text(encoding="utf-8").splitlines()
    assert [line for line in lines if ODD.search(line)] == []


def test_no_component_holds_a_sentence_of_its_own() -> None:
    """A text between tags, or in a title, is a word of ``ui/src/words``."""
    said = re.compile(r">\s*([A-Z][a-z]+ [a-z]+[^<>{}]*)<|(?:title|aria-label|placeholder)=\"([^\"]+ [^\"]+)\"")
    found = {
        file.name: match.group(0)
        for file in sorted(Path("ui/src").rglob("*.tsx"))
        for match in said.finditer(file.read_text(encoding="utf-8"))
    }
    assert found == {}
