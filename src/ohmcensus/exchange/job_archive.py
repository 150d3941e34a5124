"""Jobs with their photos in one zip: a folder for each job, by its id.

``archive.json`` names the format; ``ID/job.json`` is the whole job, ``ID/readings.csv`` with its metadata and
``ID/job-sheet.pdf`` are for people, ``ID/photos/HASH.jpg`` the pictures by the hash of their content.
"""

from __future__ import annotations

import hashlib
import json
import re
import zipfile
import zlib
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.exchange.job_case import MOST_JSON, read_job
from ohmcensus.exchange.job_file import JobFile
from ohmcensus.files.unpack import Limits, refuse_hostile
from ohmcensus.files.whole_file import written_whole

FORMAT = "ohmcensus-archive/1"
NOTE = "archive.json"
LIMITS = Limits(most_bytes=32 * 2**30, most_files=1_000_000, most_picture=30_000_000, most_ratio=200)
_PAPERS = "|".join(
    map(re.escape, ("job.json", "readings.csv", "readings.csv-metadata.json", "job-sheet.pdf", "label.pdf"))
)
_PLACE = re.compile(rf"[0-9A-Za-z-]{{1,60}}/({_PAPERS}|photos/[0-9a-f]{{64}}\.jpg)")
_MOST_NOTE = 10_000
# What the zip library raises for an archive that is damaged, encrypted, or packed in a way it does not know.
BROKEN = (zipfile.BadZipFile, zlib.error, RuntimeError, NotImplementedError, EOFError, ValueError)


@dataclass(frozen=True, slots=True)
class ArchivedJob:
    """One job on its way into an archive.

    Parameters
    ----------
    job_id
        Names its folder.
    papers
        Files for people and machines by name, the whole job as ``job.json`` among them.
    pictures
        File of each picture by the hash of its content.
    """

    job_id: str
    papers: Mapping[str, bytes]
    pictures: Mapping[str, Path] = field(default_factory=dict)


def write_archive(file: Path, jobs: Iterable[ArchivedJob]) -> int:
    """Write jobs into a zip that appears whole or not at all; return how many.

    A picture that is not there is left out: the rest goes on.

    Raises
    ------
    InputError
        If the file cannot be written.
    """
    count = 0
    with written_whole(file) as beside:
        whole = beside / "whole.zip"
        with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED, compresslevel=4) as out:
            out.writestr(NOTE, json.dumps({"format": FORMAT}, indent=2))
            for job in jobs:
                count += 1
                for name, body in job.papers.items():
                    out.writestr(f"{job.job_id}/{name}", body)
                for content, path in job.pictures.items():
                    if path.is_file():
                        out.write(path, f"{job.job_id}/photos/{content}.jpg", zipfile.ZIP_STORED)
        whole.replace(file)
    return count


class Archive:
    """An archive that was looked at; its jobs are read one at a time."""

    def __init__(self, opened: zipfile.ZipFile, name: str) -> None:
        self._opened, self._name = opened, name
        self.places = tuple(row for row in opened.namelist() if row.endswith("/job.json"))

    def job(self, place: str) -> JobFile:
        """Return one job.

        Raises
        ------
        InputError
            If it is none, or too large.
        """
        size = self._opened.getinfo(place).file_size
        if size > MOST_JSON:
            what = f"{self._name}: {place} has {size / 1e6:.0f} MB, at most {MOST_JSON / 1e6:.0f} MB are taken"
            raise InputError(what=what, remedy="take a file that was not changed by hand", field="file")
        with told_of(self._name):
            return read_job(self._opened.read(place))

    def pictures(self, place: str, job: JobFile) -> Iterator[tuple[str, bytes]]:
        """Yield the pictures of a job by the hash of their content, one at a time.

        Raises
        ------
        InputError
            If one is missing or damaged.
        """
        folder = place.partition("/")[0]
        for row in job.photos:
            try:
                with told_of(self._name):
                    body = self._opened.read(f"{folder}/photos/{row.content}.jpg")
            except KeyError:
                what = f"the archive lacks the photo {row.content[:12]} of {job.machine}"
                raise InputError(what=what, remedy="take another copy of it", field="file") from None
            if hashlib.sha256(body).hexdigest() != row.content:
                what = f"the photo {row.content[:12]} of {job.machine} is damaged"
                raise InputError(what=what, remedy="take another copy of it", field="file")
            yield row.content, body


@contextmanager
def opened_archive(file: Path, name: str) -> Iterator[Archive]:
    """Yield an archive of jobs.

    Raises
    ------
    InputError
        If it is none, is of a newer kind, damaged, or holds what none of ours does.
    """
    with told_of(name):
        opened = zipfile.ZipFile(file)
    with opened:
        with told_of(name):
            _refuse_foreign(opened, name)
            refuse_hostile(opened, name, LIMITS)
        yield Archive(opened, name)


@contextmanager
def told_of(name: str) -> Iterator[None]:
    """Tell of a file that cannot be read in one sentence."""
    try:
        yield
    except InputError:
        raise
    except (OSError, *BROKEN) as error:
        why = getattr(error, "strerror", None) or str(error)[:120] or "damaged"
        raise InputError(what=f"{name} cannot be read ({why})", remedy=_ANOTHER, field="file") from error


_ANOTHER = "name a .zip that 'ohmcensus export' wrote"


def _refuse_foreign(archive: zipfile.ZipFile, name: str) -> None:
    names, stated = archive.namelist(), ""
    if NOTE in names and archive.getinfo(NOTE).file_size < _MOST_NOTE:
        try:
            stated = str(json.loads(archive.read(NOTE)).get("format", ""))
        except (ValueError, AttributeError, RecursionError):
            stated = ""
    if stated.rpartition("/")[0] != FORMAT.rpartition("/")[0]:
        raise InputError(what=f"{name} is not an archive of jobs", remedy=_ANOTHER, field="file")
    if stated != FORMAT:
        what = f"{name} is of a newer kind ({stated[:40]}, this one knows {FORMAT})"
        raise InputError(what=what, remedy="update Ohmcensus", field="file")
    strange = [row for row in names if row != NOTE and not _PLACE.fullmatch(row)]
    if strange:
        what = f"{name} holds what no archive does ({', '.join(row[:60] for row in strange[:3])})"
        raise InputError(what=what, remedy=_ANOTHER, field="file")
