"""Suspects of a job that came in a file, without any store."""

from __future__ import annotations

from datetime import UTC, datetime
from functools import lru_cache
from typing import Any

from ohmcensus.core.course.outlook import outlook
from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.diagnosis.outcomes import OutcomeTable, outcome_table
from ohmcensus.core.diagnosis.posterior import Diagnosis
from ohmcensus.core.diagnosis.question import Objective
from ohmcensus.core.diagnosis.search import Search
from ohmcensus.core.job.case import Case
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.machine.dictionary import dictionary
from ohmcensus.core.safety import safety_at
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.job_case import case_from, own_sheet_of, read_job
from ohmcensus.exchange.job_file import JobFile
from ohmcensus.services.at_hand.outlook import next_told
from ohmcensus.services.at_hand.sheets import find_sheet


def judge_file(text: str, objective: Objective) -> dict[str, Any]:
    """Return the ranked parts, the next question and warnings, as docs/commands.md says.

    Raises
    ------
    InputError
        If the text is no job, or of a machine that neither this program nor the file has.
    """
    job = read_job(text)
    sheet = own_sheet_of(job) or find_sheet(job.sheet)
    case = case_from(job, sheet)
    lines = census_lines(case)
    table = _table(case.sheet)
    found = outlook(case, lines, table, reach_of(case, lines, safety_at(case, _moment_of(case))), objective)
    known, of_part = found.search.known, found.search.of_part
    order = sorted(range(len(known.table.parts)), key=lambda at: -of_part[at])
    return {
        "suspects": [_entry(found.search, at) for at in order],
        "nothing_found": known.nothing,
        "named": list(found.named),
        "standing": found.standing.value,
        "next": next_told(found.next),
        "warnings": _warnings(known, job),
    }


@lru_cache(maxsize=32)
def _table(sheet: Sheet) -> OutcomeTable:
    """Return the outcomes of a sheet, worked out once for however many jobs are asked one after another."""
    return outcome_table(sheet, dictionary(sheet))


def _moment_of(case: Case) -> datetime:
    """Return the moment of the last record: a file has no clock."""
    written = [row.at for row in case.readings if row.at] + [row.at for row in case.events if row.at]
    return max(map(datetime.fromisoformat, written), default=datetime.min.replace(tzinfo=UTC))


def _entry(found: Search, at: int) -> dict[str, Any]:
    part = found.known.table.parts[at]
    known = found.known if part == found.first else found.believed
    weights = known.weight[:, at].tolist() if known.observations else []
    evidence = [
        {"id": row.id, "title": row.title, "weight": weight}
        for row, weight in zip(known.observations, weights, strict=True)
    ]
    return {"part": part, "probability": float(found.of_part[at]), "evidence": evidence}


def _warnings(known: Diagnosis, job: JobFile) -> list[str]:
    found = [f"does not fit any single suspect; likeliest mistake: {known.unfit}"] if known.unfit else []
    if known.rests_on:
        found.append(f"rests on one reading: {known.rests_on}")
    unknown = [row.id for row in job.readings if row.test is not None and row.test not in known.table.tests]
    found += [f"reading {row} names a test that is not on this sheet: left out" for row in unknown]
    return found
