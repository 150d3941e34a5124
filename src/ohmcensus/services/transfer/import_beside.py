"""Files that come in over HTTP: small ones at once, large ones beside the answers, with progress and a way to stop."""

from __future__ import annotations

import shutil
import threading
from dataclasses import dataclass, field
from pathlib import Path
from uuid import uuid4

from pydantic import BaseModel

from ohmcensus.core.errors import NotFoundError, OhmcensusError, StoreError, Trouble
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.transfer.import_job import ImportCancelledError, Imported, import_file

# Up to here an answer takes a second or two.
AT_ONCE_BYTES = 5_000_000
FOLDER = ".imports"


class ImportView(BaseModel):
    """An import and how far it is.

    Attributes
    ----------
    id
        By which it is asked for and stopped; empty for one that was done at once.
    done, total
        Jobs that were looked at, and all in the file; nought while that is not known.
    is_over
        Whether nothing more happens.
    problem
        Why nothing was imported, empty otherwise.
    jobs, already, photos
        Ids of the jobs that came in, of those that were here already, and how many photos.
    """

    id: str = ""
    done: int = 0
    total: int = 0
    is_over: bool = False
    problem: str = ""
    jobs: list[str] = []
    already: list[str] = []
    photos: int = 0


@dataclass
class ImportRun:
    """A file that is coming in."""

    view: ImportView
    is_stopped: bool = False
    lock: threading.Lock = field(default_factory=threading.Lock)

    def tell(self, done: int, total: int) -> None:
        """Note how far it is; stop where that was asked for."""
        with self.lock:
            if self.is_stopped:
                raise ImportCancelledError(what="the import was stopped: nothing was imported")
            self.view = self.view.model_copy(update={"done": done, "total": total})

    def end(self, **found: object) -> None:
        """Note what came of it."""
        with self.lock:
            self.view = self.view.model_copy(update={"is_over": True, **found})


def take_in(context: Context, file: Path, name: str) -> ImportView:
    """Bring in a file at once where it is small, else begin to; one comes in at a time.

    Raises
    ------
    StoreError
        If another one is coming in.
    InputError
        If a small one cannot be imported.
    """
    if not context.importing.acquire(blocking=False):
        raise StoreError(what="another file is coming in", remedy="wait until it is done", trouble=Trouble.BUSY)
    context.importing.release()
    if file.stat().st_size <= AT_ONCE_BYTES:
        return ImportView(is_over=True, **_told(import_file(context, file, name)))
    run = ImportRun(ImportView(id=str(uuid4())))
    folder = context.store.folder / FOLDER
    folder.mkdir(mode=0o700, exist_ok=True)
    own = folder / run.view.id
    shutil.move(file, own)
    with context.lock:
        context.imports.clear()
        context.imports[run.view.id] = run
    threading.Thread(target=_run, args=(context, run, own, name), name="import", daemon=True).start()
    return run.view


def show_import(context: Context, import_id: str) -> ImportView:
    """Return how far an import is.

    Raises
    ------
    NotFoundError
        If there is none of that id: the server was started anew, or another one came after it.
    """
    return _known(context, import_id).view


def stop_import(context: Context, import_id: str) -> ImportView:
    """Stop an import before it is written; nothing of it stays.

    Raises
    ------
    NotFoundError
        If there is none of that id.
    """
    run = _known(context, import_id)
    with run.lock:
        run.is_stopped = True
    return run.view


def _known(context: Context, import_id: str) -> ImportRun:
    with context.lock:
        run: ImportRun | None = context.imports.get(import_id)
    if run is None:
        raise NotFoundError(what="no such import", remedy="look at the list of jobs, or choose the file again")
    return run


def _run(context: Context, run: ImportRun, file: Path, name: str) -> None:
    try:
        run.end(**_told(import_file(context, file, name, run.tell)))
    except OhmcensusError as error:
        run.end(problem=str(error))
    except Exception as error:  # noqa: BLE001 - it is told where the file was chosen
        run.end(problem=f"{name} cannot be imported ({type(error).__name__}): nothing was written")
    finally:
        file.unlink(missing_ok=True)


def _told(found: Imported) -> dict[str, list[str] | int]:
    return {"jobs": list(found.jobs), "already": list(found.already), "photos": found.photos}
