"""What the job sheet says, composed in words: told, found, done, proved, charged."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from ohmcensus.core.course.outlook import Outlook, named_words, outlook
from ohmcensus.core.diagnosis.changes import former_since
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.diagnosis.words import change_words, cured_words
from ohmcensus.core.event import Changed, Ended, RunMade, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import held_words, strip_down
from ohmcensus.core.judgement import CensusLine, Verdict, census_lines
from ohmcensus.core.layout import short_ruler
from ohmcensus.core.layout.ohm_ruler import END_OHM, position
from ohmcensus.core.machine import is_proof
from ohmcensus.core.proof import Proof, proofs
from ohmcensus.core.proof.before import before_words
from ohmcensus.core.proof.words import limit_words, reads_words, shown_by_words, state_of, tester_words
from ohmcensus.core.quantity import Unit
from ohmcensus.core.safety import DangerId, Safety
from ohmcensus.core.safety.danger_rows import danger_rows
from ohmcensus.core.shelf import WantedPart
from ohmcensus.core.shelf.costs import cost_rows
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.story import story_of
from ohmcensus.core.trip.words import connected_words, story_words
from ohmcensus.exchange.report import Report, ReportLeakTest, ReportProof, ReportReading
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.at_hand.outlook import reach_at

MOST_DECIDING = 6
NO_CAUSE = "No cause was established."
ADVICE = (
    "Look at the fill hoses once or twice a year: bulges, rust at the nut, kinks.",
    "Clean the drain filter after fluff, coins or hair pins, and twice a year anyway.",
)
CAUTIONS = (
    "Work for competent persons; local codes and licensed practice come first.",
    "Limits and values are advice; the text in force where the machine stands decides.",
)


def composed(context: Context, job: JobAtHand, wanted: Sequence[WantedPart] = ()) -> Report:
    """Return what the sheet of a job says.

    Parameters
    ----------
    context, job
        Where, and the job as of the moment that is told.
    wanted
        Parts that it wants.
    """
    stored, case = job.stored, job.case
    told = _outlook_told(context, job)
    before = case.before(case.first_change)
    end = case.ended
    is_unsafe = end is not None and end.body.is_labelled_unsafe
    rows = [row for row in job.lines if row.answer is not None and row.test and not is_proof(row.test.id)]
    deciding = _deciding([row for row in census_lines(before) if row.answer and row.test], told.named)
    cured = cured_words(case)
    safety = job.safety(context.clock())
    proved = proofs(case, safety)
    shown = proved if any(row.is_good is not None for row in proved) else ()
    testers = _testers(shown)
    return Report(
        title=f"Job sheet · {stored.machine}",
        job_id=stored.id,
        facts=_facts(job),
        told=_told(case),
        found=_found(told, case, safety),
        deciding=tuple(_reading(row) for row in deciding),
        not_proved=tuple(_blind(row) for row in deciding if row.answer and row.answer.judgement.blind_to),
        done=tuple(change_words(event, case) for event in case.of(Changed, RunWatched)),
        cured=cured,
        taken_off=_taken_off(case),
        parts=tuple(_part(row, case) for row in wanted),
        costs=cost_rows(case),
        proofs=tuple(_proof(case, row, testers) for row in shown),
        testers=tuple(f"{name}: {tester}" for tester, name in testers.items()),
        ending=_ending(end.body if end else None),
        signed=_signed(job),
        is_unsafe=is_unsafe,
        dangers=danger_rows(case, safety),
        advice=ADVICE,
        cautions=CAUTIONS,
        readings=tuple(_reading(row, case) for row in rows),
        plain=_plain(named_words(told, case.sheet), job, is_unsafe=is_unsafe),
        leak_tests=tuple(row for method in Method for row in _leak_tests(case, method)),
    )


def _testers(shown: Sequence[Proof]) -> dict[str, str]:
    """Return a short name for each tester, in the order in which they come up."""
    return {
        tester: f"T{at + 1}"
        for at, tester in enumerate(dict.fromkeys(name for name in map(tester_words, shown) if name))
    }


def _outlook_told(context: Context, job: JobAtHand) -> Outlook:
    """Return what the search came to: by a conclusive change, else by what was measured before the first one."""
    case, table = job.case, table_of(context.store.folder, job.case.sheet)
    safety = job.safety(context.clock())
    now = outlook(case, job.lines, table, reach_at(job, safety))
    before = case.before(case.first_change)
    if len(before.events) == len(case.events) and len(before.readings) == len(case.readings):
        return now
    lines = census_lines(before)
    then = outlook(before, lines, table, reach_of(before, lines, safety))
    return then if then.named or now.standing is not Standing.SETTLED else replace(now, sentence="")


def _found(told: Outlook, case: Case, safety: Safety) -> str:
    """Say what was found: a part only where it was named or a change was conclusive; never a bare chance."""
    if told.named:
        titles = named_words(told, case.sheet)
        return told.sentence or f"{titles}: the change cured it."
    found = told.sentence if told.standing is Standing.NOTHING_FOUND else NO_CAUSE
    altered = [row for row in danger_rows(case, safety) if row.lower().startswith(DangerId.BYPASS.words.lower())]
    return " ".join((found, *altered))


def _leak_tests(case: Case, method: Method) -> Iterator[ReportLeakTest]:
    """Yield the tests that isolated a leak, the ones that were typed as lines of the sheet among them."""
    titles = {part.id: part.title for part in case.sheet.parts}
    if not any(event.body.method == method.value for event in case.of(RunMade)):
        return
    for step in story_of(case, method):
        body, moment = step.record.body, step.record.event.at
        connected = connected_words(case.sheet, body.connected, method)
        yield ReportLeakTest(moment[11:16], connected, step.record.shows, story_words(step, titles))


def _facts(job: JobAtHand) -> tuple[tuple[str, str], ...]:
    stored, case, end = job.stored, job.case, job.case.ended
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


def _deciding(rows: list[CensusLine], named: Sequence[str]) -> list[CensusLine]:
    """Return the lines that decided it: what reads outside, then the other lines of the parts that are named."""
    outside = [row for row in rows if row.verdict and row.verdict not in _QUIET]
    own = [row for row in rows if row.test and row.test.part in named and row not in outside]
    return [*outside, *own][:MOST_DECIDING]


_QUIET = frozenset({Verdict.INSIDE, Verdict.NOT_JUDGED, Verdict.UNSURE})


def _reading(row: CensusLine, case: Case | None = None) -> ReportReading:
    """Return a line as it is printed; of a piece that has come out, it says so."""
    assert row.answer is not None  # noqa: S101 - the caller kept the answered ones
    assert row.test is not None  # noqa: S101 - the same
    judgement, indication = row.answer.judgement, row.answer.reading.indication
    window, is_ohm = judgement.window or row.test.window, indication.unit is Unit.OHM
    own = short_ruler(window, judgement.interval, indication.value)
    value = indication.value if indication.value is not None else END_OHM
    said = "comes and goes" if row.comes_and_goes else (row.verdict or judgement.verdict).value.replace("_", " ")
    if case is not None and row.answer.reading.order < former_since(case, row.test.part):
        said = f"former piece: {said}"
    return ReportReading(
        what=f"{row.test.part_title}, {row.test.title}",
        reads=row.reads,
        should=window.shown,
        verdict=said,
        is_outside=row.verdict not in _QUIET,
        position=position(value) if is_ohm else own.pin,
        band=(position(window.interval.lo), position(window.interval.hi)) if is_ohm else (own.window_lo, own.window_hi),
        labels=None if is_ohm else (own.label_lo, own.label_hi),
    )


def _blind(row: CensusLine) -> str:
    assert row.answer is not None  # noqa: S101 - the caller kept the answered ones
    modes = ", ".join(mode.words for mode in row.answer.judgement.blind_to)
    return f"{row.test.part_title}, {row.test.title}: {modes}." if row.test else modes


def _ending(body: Ended | None) -> str:
    """Say how the job ended, and how the machine was left where it did not go out as safe."""
    if body is None:
        return "The job is not ended yet: this is how it stands."
    if body.is_labelled_unsafe:
        return f"{body.why} The machine is labelled unsafe: not to be used. Left: {body.left_as.words}."
    if body.not_tested:
        left = ", ".join(name.replace("_", " ") for name in body.not_tested)
        return f"{body.why} Not tested, and the customer was told: {left}. Nothing is claimed of its safety."
    return f"{body.why} The outlet has no earth; that was reported." if body.outlet_reported else body.why


def _proof(case: Case, row: Proof, testers: Mapping[str, str]) -> ReportProof:
    by = ", ".join(word for word in (testers.get(tester_words(row), ""), shown_by_words(row)) if word)
    before, state = before_words(case, row), state_of(row).replace("_", " ")
    return ReportProof(row.criterion.title, limit_words(row), before, reads_words(row), state, by)


def _taken_off(case: Case) -> tuple[str, ...]:
    """Return what came off, with what held it and how long it took."""
    rows = []
    for row in strip_down(case):
        minutes = f"{row.step.minutes:.0f} min" if row.step.minutes else ""
        more = "; ".join(word for word in (held_words(row), minutes) if word)
        rows.append(f"{row.step.words} ({more})" if more else row.step.words)
    return tuple(rows)


def _part(wanted: WantedPart, case: Case) -> str:
    part, taken = case.sheet.part(wanted.part), wanted.taken
    exact = ", ".join(word for word in (wanted.type_number, wanted.variant) if word)
    price = f", {taken.price:.2f} from {taken.source}" if taken else ""
    return f"{part.title if part else wanted.part}{f' for {exact}' if exact else ''}: {wanted.state.words}{price}"


def _signed(job: JobAtHand) -> str:
    """Say who signed the job off and when, empty while nobody did."""
    end = job.case.ended
    if end is None:
        return ""
    moment = end.at.replace("T", " ").removesuffix("Z")
    return f"Signed off by {end.who or 'no name given'}, {moment} UTC, revision {end.order}."


def _plain(named: str, job: JobAtHand, *, is_unsafe: bool) -> tuple[str, ...]:
    """Say it for the customer."""
    changed = [event.body for event in job.case.of(Changed)]
    parts = [part.title.lower() for part in job.case.sheet.parts if part.id in {row.part for row in changed}]
    done = f"We worked on: {', '.join(parts)}." if parts else "Nothing was changed on the machine."
    cured = "It ran through after that." if cured_words(job.case) else ""
    costs = cost_rows(job.case)
    found = f"We found the {named.lower()} to be at fault." if named else NO_CAUSE
    safe = (
        "The machine is not safe. Please do not use it, and keep it unplugged."
        if is_unsafe
        else "What we tested of its safety stands in the table before this page."
    )
    total = f"Together that comes to {costs[-1][1]}." if costs else ""
    return tuple(row for row in (found, done, cured, safe, total, *ADVICE) if row)
