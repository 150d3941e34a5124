"""The job sheet that goes out: what was told, found, done and proved, in words."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta

from ohmcensus.core.case import Case
from ohmcensus.core.diagnosis.posterior import Diagnosis, Standing
from ohmcensus.core.errors import InputError
from ohmcensus.core.event import Changed, Ended
from ohmcensus.core.judgement import CensusLine, Verdict, census_lines
from ohmcensus.core.layout.ohm_ruler import position
from ohmcensus.core.machine import is_proof
from ohmcensus.core.proof import proofs
from ohmcensus.core.quantity import Unit, show_indication
from ohmcensus.core.stages import ended
from ohmcensus.exchange.report import Label, Report, ReportProof, ReportReading
from ohmcensus.services.at_hand import JobAtHand, take
from ohmcensus.services.context import Context
from ohmcensus.services.show_proof import proof_view
from ohmcensus.services.show_repair import step_words
from ohmcensus.services.show_suspects import diagnosed, table_of
from ohmcensus.services.suspect_words import chance_words, cured_words, standing_words

# Lines that decide: outside their windows, or weighing at least so many powers of ten for the suspect in front.
DECIDES_FROM = 0.3
MOST_DECIDING = 8
# After so long a proof is made again (common practice, no source).
NEXT_AFTER = timedelta(days=365)
ADVICE = (
    "Look at the fill hoses once or twice a year: bulges, rust at the nut, kinks.",
    "Clean the drain filter after fluff, coins or hair pins, and twice a year anyway.",
)
CAUTIONS = (
    "Work for competent persons; local codes and licensed practice come first.",
    "Limits and values are advice; those marked from memory are to be checked against the text that applies.",
)


def report_pdf(context: Context, job_id: str) -> bytes:
    """Return the job sheet of a job as PDF.

    Raises
    ------
    NotFoundError
        If there is no such job.
    """
    from ohmcensus.exchange.report_pdf import write_report  # noqa: PLC0415 - a quarter of a second to load

    with context.store.read() as session:
        job = take(context, session, job_id)
    return write_report(_report(context, job))


def label_pdf(context: Context, job_id: str) -> bytes:
    """Return the label of a machine whose job has ended, as PDF.

    Raises
    ------
    NotFoundError
        If there is no such job.
    InputError
        If the job has not ended, or nothing was proved and it is not labelled unsafe either.
    """
    from ohmcensus.exchange.label_pdf import write_label  # noqa: PLC0415 - a quarter of a second to load

    with context.store.read() as session:
        job = take(context, session, job_id)
    end = ended(job.case)
    if end is None or not isinstance(end.body, Ended):
        raise InputError(what="this job has not ended: no label yet", remedy="sign it off in Prove", field="job")
    rows = proofs(job.case)
    is_unsafe = end.body.is_labelled_unsafe
    if not is_unsafe and not all(row.is_good for row in rows):
        what = "nothing was proved on this job: a label would claim it"
        raise InputError(what=what, remedy="show the proof first, or label it unsafe", field="job")
    made = next((row.event for row in reversed(rows) if row.event and row.event.serial), None)
    day = datetime.fromisoformat(end.at).date()
    return write_label(
        Label(
            machine=job.stored.machine,
            job_id=job.stored.id,
            date=day.isoformat(),
            next_date="" if is_unsafe else (day + NEXT_AFTER).isoformat(),
            tester=f"Tester {made.serial}, calibrated {made.calibrated or 'not stated'}" if made else "",
            limits="" if is_unsafe else job.case.limits.title,
            is_unsafe=is_unsafe,
        )
    )


def _report(context: Context, job: JobAtHand):  # type: ignore[no-untyped-def]
    stored, case = job.stored, job.case
    before = _before_changes(case)
    known = diagnosed(before, census_lines(before), table_of(context.store.folder, case.sheet))
    end = ended(case)
    is_unsafe = end is not None and isinstance(end.body, Ended) and end.body.is_labelled_unsafe
    leader = case.sheet.part(known.leader)
    rows = [row for row in job.lines if row.answer is not None and row.test and not is_proof(row.test.id)]
    deciding = _deciding([row for row in census_lines(before) if row.answer and row.test], known.leader)
    cured = cured_words(case)
    shown = any(row.is_good is not None for row in proofs(case))
    return Report(
        title=f"Job sheet · {stored.machine}",
        job_id=stored.id,
        facts=_facts(job),
        told=_told(case),
        found=_found(known, leader.title if leader else ""),
        deciding=tuple(_reading(row) for row in deciding),
        not_proved=tuple(_blind(row) for row in deciding if row.answer and row.answer.judgement.blind_to),
        done=tuple(step_words(event, case) for event in case.events if event.body.kind in {"changed", "run_watched"}),
        cured=cured,
        proofs=tuple(
            ReportProof(row.title, row.limit, row.reads, row.state.replace("_", " "), row.shown_by)
            for row in proof_view(context, job).criteria
        )
        if shown
        else (),
        ending=_ending(end.body.why if end and isinstance(end.body, Ended) else "", is_unsafe=is_unsafe),
        is_unsafe=is_unsafe,
        advice=ADVICE,
        cautions=CAUTIONS,
        readings=tuple(_reading(row) for row in rows),
        plain=_plain(
            leader.title if leader else "", chance_words(float(known.of_part.max())), cured, is_unsafe=is_unsafe
        ),
    )


def _before_changes(case: Case) -> Case:
    """Return the case as it was before anything was changed: what was found then is what led to the repair."""
    first = min((event.order for event in case.events if isinstance(event.body, Changed)), default=None)
    if first is None:
        return case
    return replace(
        case,
        readings=tuple(row for row in case.readings if row.order < first),
        events=tuple(event for event in case.events if event.order < first),
    )


def _found(known: Diagnosis, leader: str) -> str:
    """Say what was found: the part in front and how sure that was."""
    if known.standing in {Standing.NAMED, Standing.NOTHING_FOUND, Standing.UNFIT}:
        return standing_words(known)
    if not leader:
        return "No part stands out by what was measured."
    return f"{leader}, {chance_words(float(known.of_part.max()))} by what was measured before anything was changed."


def _facts(job: JobAtHand) -> tuple[tuple[str, str], ...]:
    stored, case, end = job.stored, job.case, ended(job.case)
    plate = case.plate
    rows = (
        ("Machine", f"{stored.machine}, {case.sheet.title}"),
        ("Place", stored.place),
        ("Type, serial", ", ".join(word for word in (plate.type_number, plate.serial) if word)),
        ("Supply", f"{case.sheet.volts:g} V {case.sheet.hertz:g} Hz"),
        ("Opened", stored.opened_at.replace("T", " ").removesuffix("Z") + " UTC"),
        ("By", end.who if end else job.settings.technician),
        ("Job", stored.id),
    )
    return tuple((name, value) for name, value in rows if value)


def _told(case: Case) -> str:
    said = case.complaint.words or "Nothing was said."
    symptoms = ", ".join(symptom.words for symptom in case.complaint.symptoms)
    return f"{said} ({symptoms})" if symptoms else said


def _deciding(rows: list[CensusLine], leader: str) -> list[CensusLine]:
    """Return the lines that decided it: what reads outside, then the other lines of the part in front."""
    outside = [row for row in rows if row.answer and row.answer.judgement.verdict not in _QUIET]
    own = [row for row in rows if row.test and row.test.part == leader and row not in outside]
    return [*outside, *own][:MOST_DECIDING]


_QUIET = frozenset({Verdict.INSIDE, Verdict.NOT_JUDGED, Verdict.UNSURE})


def _reading(row: CensusLine):  # type: ignore[no-untyped-def]
    assert row.answer is not None  # noqa: S101 - the caller kept the answered ones
    assert row.test is not None  # noqa: S101 - the same
    judgement, indication = row.answer.judgement, row.answer.reading.indication
    value = indication.value if indication.value is not None else 1e9
    return ReportReading(
        what=f"{row.test.part_title}, {row.test.title}",
        reads=show_indication(indication),
        should=(judgement.window or row.test.window).shown,
        verdict=judgement.verdict.value.replace("_", " "),
        is_outside=judgement.verdict not in _QUIET,
        position=position(value) if indication.unit is Unit.OHM else None,
    )


def _blind(row: CensusLine) -> str:
    assert row.answer is not None  # noqa: S101 - the caller kept the answered ones
    modes = ", ".join(mode.words for mode in row.answer.judgement.blind_to)
    return f"{row.test.part_title}, {row.test.title}: {modes}." if row.test else modes


def _ending(why: str, *, is_unsafe: bool) -> str:
    if not why:
        return "The job is not ended yet: this is how it stands."
    return f"{why} The machine is labelled unsafe: not to be used." if is_unsafe else why


def _plain(leader: str, chance: str, cured: str, *, is_unsafe: bool) -> tuple[str, ...]:
    found = f"We found the {leader.lower()} to be at fault ({chance})." if leader else "We found no fault by our tests."
    safe = (
        "The machine is not safe. Please do not use it, and keep it unplugged."
        if is_unsafe
        else "What we tested of its safety stands in the table before this page."
    )
    return tuple(row for row in (found, cured, safe, *ADVICE) if row)
