"""Writing the API's description and the schemas of jobs, stories and sheets to docs/formats, for the interface's types.

Run as ``python -m ohmcensus.web.describe FOLDER``.
"""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

from ohmcensus.exchange.job_file import JobFile
from ohmcensus.exchange.sheet_schema import sheet_schema
from ohmcensus.exchange.story_file import Story
from ohmcensus.services.at_hand.context import Context
from ohmcensus.storage.database import open_store
from ohmcensus.web.app import create_app, description


def describe(folder: Path) -> None:
    """Write openapi.gen.json and the schemas of the formats."""
    folder.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as empty:
        store = open_store(Path(empty))
        document = description(create_app(Context(store)))
        store.close()
    _write(folder / "openapi.gen.json", document)
    _write(folder / "ohmcensus-job-1.schema.gen.json", JobFile.model_json_schema(mode="serialization"))
    _write(folder / "ohmcensus-story-1.schema.gen.json", Story.model_json_schema())
    _write(folder / "ohmcensus-sheet-1.schema.gen.json", sheet_schema())


def _write(file: Path, document: object) -> None:
    file.write_text(json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False) + "\n", encoding="utf-8")


if __name__ == "__main__":
    describe(Path(sys.argv[1]))
