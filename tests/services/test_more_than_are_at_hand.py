"""More jobs than are held at hand: each answers as its own, whoever was asked last."""

from __future__ import annotations

from uuid import uuid4

from tests.working import every_job, logged

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import MOST_AT_HAND
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.job.show_job import show_job
from ohmcensus.services.reading.show_trace import show_trace


def test_each_of_many_jobs_keeps_its_own_readings(context: Context) -> None:
    count = MOST_AT_HAND + 12
    jobs = [
        open_job(context, NewJob(id=uuid4(), machine=f"Machine {at}", place="Pier", sheet="fl7-u")).id
        for at in range(count)
    ]
    for at in (0, 1, count - 1):
        logged(context, jobs[at], f"outlet {220 + at % 20}")
    for job in jobs:
        show_job(context, job)
    assert len(context.at_hand) <= MOST_AT_HAND
    for at in (0, 1, count - 1):
        lines = {row.key: row.reads for row in show_trace(context, jobs[at]).lines}
        assert lines["outlet.ln"] == f"{220 + at % 20} V"
    assert show_job(context, jobs[5]).asked == 0
    assert sorted(row.id for row in every_job(context)) == sorted(jobs)
