"""Jobs and everything, out into a file and in again."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path

import click
from platformdirs import user_data_path

from ohmcensus.cli.say import say
from ohmcensus.core.errors import InputError

data_option = click.option("--data", "data", type=click.Path(path_type=Path), help="Data directory.")
file_argument = click.argument("file", type=click.Path(path_type=Path, dir_okay=False))


@click.command("export")
@click.argument("job")
@click.option("-o", "file", required=True, type=click.Path(path_type=Path, dir_okay=False))
@click.option("--story", "is_story", is_flag=True, help="Write the job as a story for replay, .json.")
@data_option
def export_command(job: str, file: Path, data: Path | None, *, is_story: bool) -> None:
    """Write JOB, or "all", to FILE: .csv readings, .json the job, .pdf the sheet, .zip all of it with photos."""
    from ohmcensus.services.at_hand.context import Context  # noqa: PLC0415
    from ohmcensus.services.transfer.export_job import export_job  # noqa: PLC0415
    from ohmcensus.storage.database import open_store  # noqa: PLC0415

    folder = _folder(data)
    if not folder.exists():
        raise InputError(what=f"no data directory {folder}", remedy="name it with --data", field="data")
    context = Context(open_store(folder))
    if not is_story:
        with _progress("Exporting") as tell:
            lacking = export_job(context, job, file, tell)
        for words in lacking:
            click.echo(f"ohmcensus: {words} is missing and was left out", err=True)
        return
    from ohmcensus.services.transfer.export_story import story_of  # noqa: PLC0415

    if file.suffix.lower() != ".json":
        raise InputError(
            what=f"a story is not a {file.suffix or 'file without an ending'}", remedy="name a .json", field="file"
        )
    file.write_text(json.dumps(story_of(context, job), indent=2, ensure_ascii=False) + "\n", encoding="utf-8")


@click.command("import")
@file_argument
@data_option
def import_command(file: Path, data: Path | None) -> None:
    """Bring in the jobs of FILE, .json or .zip: all of them or none."""
    from ohmcensus.services.at_hand.context import Context  # noqa: PLC0415
    from ohmcensus.services.transfer.import_job import import_file  # noqa: PLC0415
    from ohmcensus.storage.database import open_store  # noqa: PLC0415

    context = Context(open_store(_folder(data)))
    with _progress("Importing") as tell:
        found = import_file(context, file, tell=tell)
    say({"jobs": list(found.jobs), "already": list(found.already), "photos": found.photos})


@click.command()
@file_argument
@data_option
def backup(file: Path, data: Path | None) -> None:
    """Write all data to FILE, photos included; it is checked before it takes the place of a former one."""
    from ohmcensus.storage.backup import write_backup  # noqa: PLC0415

    at = datetime.now(UTC).isoformat(timespec="seconds")
    found = write_backup(_folder(data), file, at=at)
    lacking = [f"photo {content[:12]} of job {job} is missing" for content, job in found.lacking]
    say({"file": str(file), "photos": found.files, "lacking": lacking})


@click.command()
@file_argument
@click.option("--aside", "is_aside", is_flag=True, help="Set the data that are there aside first.")
@data_option
def restore(file: Path, data: Path | None, *, is_aside: bool) -> None:
    """Bring all data back from FILE into an empty data directory; stop the server first."""
    from ohmcensus.storage.backup import read_backup  # noqa: PLC0415
    from ohmcensus.storage.database import open_store  # noqa: PLC0415

    folder = _folder(data)
    count = read_backup(file, folder, aside=is_aside)
    open_store(folder).close()
    say({"data": str(folder), "photos": count})


@click.command()
@click.option("--compact", "is_compact", is_flag=True, help="Give the room of what was removed back to the disk.")
@data_option
def check(data: Path | None, *, is_compact: bool) -> None:
    """Look whether database, photos and the last backup are whole; one sentence for each that is not."""
    from ohmcensus.services.upkeep.check_data import check_data  # noqa: PLC0415

    found = check_data(_folder(data), is_compact=is_compact)
    if not found.problems:
        say({"ok": True, "photos": found.photos, "backup": found.backup})
        return
    for sentence in found.problems:
        click.echo(f"ohmcensus: {sentence}", err=True)
    sys.exit(2)


@contextmanager
def _progress(label: str) -> Iterator[Callable[[int, int], None]]:
    """Yield what tells how many of how many are done: a bar where somebody looks, nothing in a script."""
    with click.progressbar(length=_PARTS, label=label, file=sys.stderr, hidden=not sys.stderr.isatty()) as bar:
        yield lambda done, total: bar.update(_PARTS * done // max(total, 1) - bar.pos)
        bar.update(_PARTS - bar.pos)


_PARTS = 1000


def _folder(data: Path | None) -> Path:
    return data or user_data_path("ohmcensus") / "data"
