"""What is committed of the API's description and the job format is what the code says."""

from __future__ import annotations

from pathlib import Path

from ohmcensus.web.describe import describe


def test_the_committed_description_is_current(tmp_path: Path) -> None:
    describe(tmp_path)
    for made in tmp_path.iterdir():
        kept = Path("docs/formats") / made.name
        assert kept.read_text(encoding="utf-8") == made.read_text(encoding="utf-8"), "run make types"
