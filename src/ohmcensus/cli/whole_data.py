"""Everything in one file, out and in."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

import click
from platformdirs import user_data_path

from ohmcensus.cli.say import say

data_option = click.option("--data", "data", type=click.Path(path_type=Path), help="Data directory.")
file_argument = click.argument("file", type=click.Path(path_type=Path, dir_okay=False))


@click.command()
@file_argument
@data_option
def backup(file: Path, data: Path | None) -> None:
    """Write all data to FILE, photos included."""
    from ohmcensus.storage.backup import write_backup  # noqa: PLC0415

    at = datetime.now(UTC).isoformat(timespec="seconds")
    say({"file": str(file), "photos": write_backup(_folder(data), file, at=at)})


@click.command()
@file_argument
@data_option
def restore(file: Path, data: Path | None) -> None:
    """Bring all data back from FILE into an empty data directory."""
    from ohmcensus.storage.backup import read_backup  # noqa: PLC0415
    from ohmcensus.storage.database import open_store  # noqa: PLC0415

    folder = _folder(data)
    count = read_backup(file, folder)
    open_store(folder).close()
    say({"data": str(folder), "photos": count})


def _folder(data: Path | None) -> Path:
    return data or user_data_path("ohmcensus") / "data"
