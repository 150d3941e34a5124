"""Files that appear whole or not at all."""

from __future__ import annotations

import shutil
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ohmcensus.core.errors import InputError

PREFIX = ".ohmcensus-"
LEFT_AFTER_S = 3600


@contextmanager
def written_whole(file: Path) -> Iterator[Path]:
    """Yield a folder beside a file, to write in before the file is put into its place.

    What a kill left there an hour ago and more is taken away.

    Raises
    ------
    InputError
        If the place cannot be written.
    """
    place = file.resolve().parent
    try:
        sweep_left(place, f"{PREFIX}*")
        with tempfile.TemporaryDirectory(dir=place, prefix=PREFIX) as beside:
            yield Path(beside)
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror or error})"
        raise InputError(what=what, remedy="choose another place", field="file") from error


def sweep_left(place: Path, *patterns: str) -> None:
    """Take away what a kill left an hour ago and more: folders and files of some names that nothing knows of."""
    for pattern in patterns:
        for left in place.glob(pattern):
            if time.time() - left.stat().st_mtime <= LEFT_AFTER_S:
                continue
            if left.is_dir():
                shutil.rmtree(left, ignore_errors=True)
            else:
                left.unlink(missing_ok=True)
