"""Files damaged in any byte, hostile pictures, rotten pages, a disk that is full: sentences, and nothing half."""

from __future__ import annotations

import collections
import io
import os
import random
import shutil
import subprocess
import tempfile
import zipfile
from pathlib import Path
from uuid import uuid4

from PIL import Image

from ohmcensus.core.errors import OhmcensusError
from ohmcensus.demo.seed import seed_demo
from ohmcensus.exchange.photo import prepared
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.list_jobs import list_jobs
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.services.transfer.export_job import export_job
from ohmcensus.services.transfer.import_job import import_file
from ohmcensus.services.upkeep.check_data import check_data
from ohmcensus.storage.backup import read_backup, write_backup
from ohmcensus.storage.check import damage_of
from ohmcensus.storage.database import FILE_NAME, open_store

COPIES, PICTURES, ROTTEN = 600, 20_000, 6
AT = "2026-11-27T00:00:00Z"


def spoilt(body: bytes, chance: random.Random) -> bytes:
    """Return a copy with a bit turned, a piece cut off or a piece doubled."""
    place = chance.randrange(len(body))
    if chance.random() < 0.1:
        return body[:place]
    return body[:place] + bytes([body[place] ^ (1 << chance.randrange(8))]) + body[place + 1 :]


def damaged_files(folder: Path) -> None:
    """Read damaged backups and archives; print how they were met."""
    chance = random.Random(2)  # noqa: S311 - which byte is spoilt
    context = Context(open_store(folder / "demo"))
    seed_demo(context)
    job = list_jobs(context).jobs[0].id
    write_backup(folder / "demo", folder / "all.zip", at=AT)
    export_job(context, job, folder / "job.zip")
    for kind in ("all.zip", "job.zip"):
        met: collections.Counter[str] = collections.Counter()
        body, bad = (folder / kind).read_bytes(), folder / "bad.zip"
        other = Context(open_store(folder / f"other {kind}"))
        for number in range(COPIES):
            bad.write_bytes(spoilt(body, chance))
            target = folder / f"new{number}"
            try:
                if kind == "all.zip":
                    read_backup(bad, target)
                    met["taken, whole" if not damage_of(target / FILE_NAME) else "TAKEN, DAMAGED"] += 1
                else:
                    import_file(other, bad)
                    met["taken, whole"] += 1
            except OhmcensusError:
                met["refused in a sentence"] += 1
            except Exception as error:  # noqa: BLE001 - what is counted here
                met[f"UNCAUGHT {type(error).__name__}"] += 1
            shutil.rmtree(target, ignore_errors=True)
        print(f"{kind} damaged {COPIES} times: {dict(met)}")
    context.store.close()


def damaged_pictures() -> None:
    """Read damaged pictures with EXIF; print how they were met."""
    chance = random.Random(3)  # noqa: S311 - which byte is spoilt
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x0112], exif[0x010E], exif[0x8825] = 6, "x" * 40, {1: "N", 2: (50.0, 1.0, 2.0)}
    Image.new("RGB", (48, 32), (90, 120, 40)).save(out, "JPEG", exif=exif)
    body, met = out.getvalue(), collections.Counter[str]()
    for _ in range(PICTURES):
        try:
            prepared(spoilt(body, chance), "a.jpg")
            met["kept"] += 1
        except OhmcensusError:
            met["refused in a sentence"] += 1
        except Exception as error:  # noqa: BLE001 - what is counted here
            met[f"UNCAUGHT {type(error).__name__}"] += 1
    print(f"pictures damaged {PICTURES} times: {dict(met)}")


def rotten_pages(folder: Path) -> None:
    """Spoil pages of a database; print what start, list, check and backup make of it."""
    chance = random.Random(5)  # noqa: S311 - which pages rot
    met: collections.Counter[str] = collections.Counter()
    for number in range(ROTTEN):
        place = folder / f"rotten{number}"
        context = Context(open_store(place))
        seed_demo(context)
        write_backup(place, folder / "good.zip", at=AT)
        good = (folder / "good.zip").read_bytes()
        context.store.close()
        size = (place / FILE_NAME).stat().st_size // 4096
        with (place / FILE_NAME).open("r+b") as file:
            for page in chance.sample(range(2, size), 20):
                file.seek(page * 4096)
                file.write(chance.randbytes(4096))
        met["noticed by check"] += bool(check_data(place).problems)
        try:
            fresh = Context(open_store(place))
            met["list answered"] += bool(list_jobs(fresh).jobs)
            fresh.store.close()
        except OhmcensusError:
            met["list refused in a sentence"] += 1
        try:
            write_backup(place, folder / "good.zip", at=AT)
            met["BACKUP OF DAMAGE"] += 1
        except OhmcensusError:
            met["backup refused"] += 1
        met["former backup kept"] += (folder / "good.zip").read_bytes() == good
    print(f"20 rotten pages, {ROTTEN} times: {dict(met)}")


def full_disk(folder: Path) -> None:
    """Write on a disk of 4 MB until it is full, then with room again; print what was lost."""
    place = folder / "small"
    place.mkdir()
    mount = ["mount", "-t", "tmpfs", "-o", "size=4m", "tmpfs", str(place)]
    if os.geteuid() != 0 or subprocess.run(mount, check=False, capture_output=True).returncode != 0:
        print("full disk: left out, a small disk cannot be mounted here")
        return
    try:
        context = Context(open_store(place / "data"))
        job = str(open_job(context, NewJob(id=uuid4(), machine="M", place="P", sheet="fl7-u")).id)
        acknowledged, said, revision = [], "", 1
        ballast = place / "ballast"
        ballast.write_bytes(bytes(1_500_000))
        for _ in range(4000):
            new = NewReading(id=uuid4(), revision=revision, text="outlet 229")
            try:
                revision = log_reading(context, job, new).job.revision
                acknowledged.append(str(new.id))
            except OhmcensusError as error:
                said = str(error)
                break
        ballast.unlink()
        goes_on = log_reading(context, job, new).job.revision == revision + 1
        context.store.close()
        rows = open_store(place / "data")
        with rows.read() as session:
            kept = {row[0] for row in session.connection().exec_driver_sql("SELECT id FROM reading")}
        rows.close()
        lost = len(set(acknowledged) - kept)
        print(f"full disk: {len(acknowledged)} acknowledged, {lost} lost, then '{said[:40]}'; goes on: {goes_on}")
    finally:
        subprocess.run(["umount", str(place)], check=False)


def hostile_zips(folder: Path) -> None:
    """Import zips that unpack to much; print how they were met, and the memory that it took."""
    import resource  # noqa: PLC0415 - of this attack alone

    other = Context(open_store(folder / "hostile"))
    with zipfile.ZipFile(folder / "bomb.zip", "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("archive.json", '{"format": "ohmcensus-archive/1"}')
        with out.open(f"{uuid4()}/job.json", "w", force_zip64=True) as job:
            for _ in range(700):
                job.write(b" " * 1_000_000)
    with (folder / "wide.json").open("w") as wide:
        wide.write('{"k":0')
        for number in range(1_200_000):
            wide.write(f',"k{number}":{number}')
        wide.write("}")
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    for name in ("bomb.zip", "wide.json"):
        size = (folder / name).stat().st_size / 1e6
        try:
            import_file(other, folder / name)
            said = "TAKEN"
        except OhmcensusError as error:
            said = str(error)[:90]
        print(f"{name} of {size:.1f} MB: {said}")
    grown = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1000
    print(f"  memory grew by {grown:.0f} MB")
    other.store.close()


def main() -> None:
    """Print all of it."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        hostile_zips(folder)
        damaged_files(folder)
        damaged_pictures()
        rotten_pages(folder)
        full_disk(folder)


if __name__ == "__main__":
    main()
