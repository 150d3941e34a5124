"""A page that is served beside the API."""

from __future__ import annotations

from pathlib import Path

import pytest


@pytest.fixture
def static(tmp_path: Path) -> Path:
    folder = tmp_path / "static"
    folder.mkdir()
    (folder / "index.html").write_text("<!doctype html><title>x</title>")
    return folder
