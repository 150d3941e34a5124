"""Names that outlive a power cut: a folder has to be flushed like a file."""

from __future__ import annotations

import os
from pathlib import Path


def fsync_folder(folder: Path) -> None:
    """Flush the names in a folder to the disk."""
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def fsync_file(file: Path) -> None:
    """Flush the content of a file to the disk."""
    with file.open("rb+") as opened:
        os.fsync(opened.fileno())
