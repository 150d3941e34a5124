"""Several writers at one job: every revision is one writer's, and nobody's reading is lost or doubled."""

from __future__ import annotations

import threading
from pathlib import Path
from uuid import uuid4

from tests.seeded import new_store

from ohmcensus.core.errors import StaleRevisionError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.reading.log_reading import NewReading, log_reading
from ohmcensus.services.reading.show_trace import show_trace

WRITERS = 4
EACH = 6


def test_writers_who_retry_on_top_of_the_newest_lose_nothing(tmp_path: Path) -> None:
    store = new_store(tmp_path)
    job_id = open_job(Context(store), NewJob(id=uuid4(), machine="M", place="P", sheet="fl7-u")).id
    refused: list[int] = []

    def work() -> None:
        context, revision = Context(store), 1
        for _ in range(EACH):
            row_id = uuid4()
            while True:
                try:
                    new = NewReading(id=row_id, revision=revision, text="pump loose 148")
                    revision = log_reading(context, job_id, new).job.revision
                    break
                except StaleRevisionError as error:
                    refused.append(error.stated)
                    revision = error.current

    threads = [threading.Thread(target=work) for _ in range(WRITERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    trace = show_trace(Context(store), job_id)
    history = next(line.history for line in trace.lines if line.key == "pump.coil")
    assert len({row.id for row in history}) == len(history) == WRITERS * EACH
    assert trace.job.revision == WRITERS * EACH + 1
    assert refused
    store.close()


def test_two_processes_share_one_directory(tmp_path: Path) -> None:
    first, second = new_store(tmp_path), new_store(tmp_path)
    job_id = open_job(Context(first), NewJob(id=uuid4(), machine="M", place="P", sheet="fl7-u")).id
    one, two = Context(first), Context(second)
    log_reading(one, job_id, NewReading(id=uuid4(), revision=1, text="pump loose 148"))
    log_reading(two, job_id, NewReading(id=uuid4(), revision=2, text="heater loose 25.9"))
    assert show_trace(one, job_id) == show_trace(two, job_id)
    assert show_trace(one, job_id).job.asked == 2
    first.close()
    second.close()
