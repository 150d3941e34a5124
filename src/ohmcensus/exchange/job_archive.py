"""Jobs with their photos in one zip: a folder for each job, by its id.

``archive.json`` names the format; ``ID/job.json`` is the whole job, ``ID/readings.csv`` with its metadata and
``ID/job-sheet.pdf`` are for people, ``ID/photos/HASH.jpg`` the pictures by the hash of their content.
"""

from __future__ import annotations

import hashlib
import json
import re
import tempfile
import zipfile
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from pathlib import Path

from ohmcensus.core.errors import InputError
from ohmcensus.exchange.job_case import read_job
from ohmcensus.exchange.job_file import JobFile

FORMAT = "ohmcensus-archive/1"
NOTE = "archive.json"
MOST_BYTES = 8 * 2**30
_PAPERS = "|".join(
    map(re.escape, ("job.json", "readings.csv", "readings.csv-metadata.json", "job-sheet.pdf", "label.pdf"))
)
_PLACE = re.compile(rf"[0-9A-Za-z-]{{1,60}}/({_PAPERS}|photos/[0-9a-f]{{64}}\.jpg)")


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

    Raises
    ------
    InputError
        If the file cannot be written.
    """
    count = 0
    try:
        with tempfile.TemporaryDirectory(dir=file.resolve().parent) as beside:
            whole = Path(beside) / "whole.zip"
            with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as out:
                out.writestr(NOTE, json.dumps({"format": FORMAT}, indent=2))
                for job in jobs:
                    count += 1
                    for name, body in job.papers.items():
                        out.writestr(f"{job.job_id}/{name}", body)
                    for content, path in job.pictures.items():
                        out.write(path, f"{job.job_id}/photos/{content}.jpg", zipfile.ZIP_STORED)
            whole.replace(file)
    except OSError as error:
        what = f"{file} cannot be written ({error.strerror})"
        raise InputError(what=what, remedy="choose another place", field="file") from error
    return count


def read_archive(file: Path) -> Iterator[tuple[JobFile, dict[str, bytes]]]:
    """Yield each job of an archive with its pictures by their hash; every picture is held against its hash.

    Raises
    ------
    InputError
        If it is no archive, is of a newer kind, damaged, or lacks a picture that a job shows.
    """
    try:
        with zipfile.ZipFile(file) as archive:
            _refuse_foreign(archive, file)
            for name in archive.namelist():
                if name.endswith("/job.json"):
                    job = read_job(archive.read(name).decode("utf-8", "replace"))
                    yield job, _pictures(archive, name.partition("/")[0], job)
    except (OSError, zipfile.BadZipFile) as error:
        raise InputError(what=f"{file.name} cannot be read ({error})", remedy=_ANOTHER, field="file") from error


_ANOTHER = "name a .zip that 'ohmcensus export' wrote"


def _pictures(archive: zipfile.ZipFile, folder: str, job: JobFile) -> dict[str, bytes]:
    found = {}
    for row in job.photos:
        try:
            body = archive.read(f"{folder}/photos/{row.content}.jpg")
        except KeyError:
            what = f"the archive lacks the photo {row.content[:12]} of {job.machine}"
            raise InputError(what=what, remedy="take another copy of it", field="file") from None
        if hashlib.sha256(body).hexdigest() != row.content:
            what = f"the photo {row.content[:12]} of {job.machine} is damaged"
            raise InputError(what=what, remedy="take another copy of it", field="file")
        found[row.content] = body
    return found


def _refuse_foreign(archive: zipfile.ZipFile, file: Path) -> None:
    names = archive.namelist()
    try:
        stated = str(json.loads(archive.read(NOTE)).get("format", ""))
    except (KeyError, ValueError, AttributeError):
        stated = ""
    if stated.rpartition("/")[0] != FORMAT.rpartition("/")[0]:
        raise InputError(what=f"{file.name} is no archive of jobs", remedy=_ANOTHER, field="file")
    if stated != FORMAT:
        what = f"{file.name} is of a newer kind ({stated[:40]}, this one knows {FORMAT})"
        raise InputError(what=what, remedy="update Ohmcensus", field="file")
    strange = [name for name in names if name != NOTE and not _PLACE.fullmatch(name)]
    if strange or sum(row.file_size for row in archive.infolist()) > MOST_BYTES:
        what = f"{file.name} holds what no archive does ({', '.join(strange[:3]) or 'too much'})"
        raise InputError(what=what, remedy=_ANOTHER, field="file")
    damaged = archive.testzip()
    if damaged is not None:
        raise InputError(what=f"{file.name} is damaged at {damaged}", remedy="take another copy of it", field="file")
