"""What the job sheet says, composed in words: told, found, done, proved, charged."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import tzinfo

from ohmcensus.core.course.outlook import Outlook, named_words, outlook
from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.mending import unread_words
from ohmcensus.core.diagnosis.of_case import reach_of
from ohmcensus.core.diagnosis.words import change_words, cured_words
from ohmcensus.core.event import BypassRemoved, Changed, Ended, Event, RunMade, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import held_words, strip_down
from ohmcensus.core.judgement import census_lines
from ohmcensus.core.machine import is_proof
from ohmcensus.core.proof import Proof, proofs
from ohmcensus.core.proof.before import before_words
from ohmcensus.core.proof.words import limit_words, reads_words, shown_by_words, state_of, tester_words
from ohmcensus.core.safety import DangerId, Safety
from ohmcensus.core.safety.danger_rows import danger_rows
from ohmcensus.core.shelf import WantedPart
from ohmcensus.core.shelf.costs import cost_rows
from ohmcensus.core.text.moment import clock_words, local, moment_words
from ohmcensus.core.trip.problem import Method
from ohmcensus.core.trip.story import story_of
from ohmcensus.core.trip.words import connected_words, story_words
from ohmcensus.exchange.report import Report, ReportFirm, ReportLeakTest, ReportProof, ReportReading, ReportSignature
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import JobAtHand
from ohmcensus.services.at_hand.outcome_tables import table_of
from ohmcensus.services.at_hand.outlook import outlook_of
from ohmcensus.services.sheet_out.customer_page import ADVICE, NO_CAUSE, customer_page, told_words, unsafe_words
from ohmcensus.services.sheet_out.given import NOTHING_GIVEN, Given
from ohmcensus.services.sheet_out.readings import blind_words, deciding_lines, is_outside, printed, read_again

CAUTIONS = (
    "Work for competent persons; local codes and licensed practice come first.",
    "Limits and values are advice; the text in force where the machine stands decides.",
)


def composed(context: Context, job: JobAtHand, given: Given = NOTHING_GIVEN) -> Report:
    """Return what the sheet of a job says.

    Parameters
    ----------
    context, job
        Where, and the job as of the moment that is told.
    given
        What the store adds to the job.
    """
    stored, case = job.stored, job.case
    told = _outlook_told(context, job)
    before, lines = case.before(case.first_change), [row for row in job.lines if row.answer is not None and row.test]
    deciding = deciding_lines([row for row in census_lines(before) if row.answer and row.test], told.named)
    shown = next(
        (printed(row) for row in deciding if is_outside(row) and row.test and row.test.part in told.named), None
    )
    safety = job.safety(context.clock())
    made = _made(case, safety)
    testers = _testers(made)
    proved = tuple(_proof(case, row, testers) for row in made)
    end = case.ended
    report = Report(
        title=f"Job sheet · {stored.machine}",
        job_id=stored.id,
        facts=_facts(job),
        told=told_words(case),
        found=_found(told, case, safety),
        deciding=tuple(printed(row) for row in deciding),
        not_proved=blind_words(deciding),
        done=(
            *(change_words(event, case) for event in case.of(Changed, RunWatched, BypassRemoved)),
            *unread_words(case, job.lines),
        ),
        cured=cured_words(case),
        taken_off=_taken_off(case),
        parts=tuple(_part(row, case) for row in given.wanted),
        costs=cost_rows(case),
        proofs=proved,
        testers=tuple(f"{name}: {tester}" for tester, name in testers.items()),
        ending=_ending(end.body if end else None),
        signed=_signed(job),
        is_unsafe=end is not None and end.body.is_labelled_unsafe,
        dangers=danger_rows(case, safety),
        advice=ADVICE,
        cautions=CAUTIONS,
        readings=tuple(printed(row, case) for row in lines if row.test and not is_proof(row.test.id)),
        leak_tests=tuple(row for method in Method for row in _leak_tests(case, method, job.settings.firm.clock)),
        after=tuple(read_again(deciding, lines, case.first_change)) if case.of(Changed) else (),
        photos=given.photos,
    )
    return _for_customer(_by_firm(report, job, given.mark), case, safety, named_words(told, case.sheet), shown)


def _by_firm(report: Report, job: JobAtHand, mark: str) -> Report:
    """Return a sheet with the head of the firm, the name of its zone, and the customer's signature."""
    firm, end = job.settings.firm, job.case.ended
    last = end.at if end else job.stored.opened_at
    head = ReportFirm(firm.name, tuple(row.strip() for row in firm.address.splitlines()), firm.contact, mark)
    return replace(
        report,
        zone=f"{local(last, firm.clock):%Z}",
        firm=head if firm.name or mark else None,
        signature=_signature(end, firm.clock) if end else None,
    )


def _for_customer(report: Report, case: Case, safety: Safety, named: str, shown: ReportReading | None) -> Report:
    """Return a sheet with the customer's page, and why the machine is not safe."""
    page = customer_page(case, safety, named=named, shown=shown, proofs=report.proofs)
    return replace(report, customer=page, shown=shown, unsafe_why=unsafe_words(case, safety))


def _made(case: Case, safety: Safety) -> Sequence[Proof]:
    """Return the proof as soon as any of it was shown."""
    proved = proofs(case, safety)
    return proved if any(row.is_good is not None for row in proved) else ()


def _signature(end: Event[Ended], clock: tzinfo) -> ReportSignature | None:
    drawn = end.body.signature
    return ReportSignature(drawn.name, moment_words(end.at, clock), drawn.strokes) if drawn else None


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
    now = outlook_of(context, job)
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


def _leak_tests(case: Case, method: Method, clock: tzinfo) -> Iterator[ReportLeakTest]:
    """Yield the tests that isolated a leak, the ones that were typed as lines of the sheet among them."""
    titles = {part.id: part.title for part in case.sheet.parts}
    if not any(event.body.method == method.value for event in case.of(RunMade)):
        return
    for step in story_of(case, method):
        connected = connected_words(case.sheet, step.record.body.connected, method)
        at = clock_words(step.record.event.at, clock)
        yield ReportLeakTest(at, connected, step.record.shows, story_words(step, titles))


def _facts(job: JobAtHand) -> tuple[tuple[str, str], ...]:
    stored, case, end = job.stored, job.case, job.case.ended
    plate = case.plate
    rows = (
        ("Machine", f"{stored.machine}, {case.sheet.title}"),
        ("Customer", stored.customer),
        ("Place", stored.place),
        ("Type, serial", ", ".join(word for word in (plate.type_number, plate.serial) if word)),
        ("Supply", f"{case.sheet.volts:g} V {case.sheet.hertz:g} Hz"),
        ("Opened", moment_words(stored.opened_at, job.settings.firm.clock)),
        ("By", end.who if end else job.settings.technician),
        ("Job", stored.id),
    )
    return tuple((name, value) for name, value in rows if value)


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
        minutes = f"{row.step.minutes:.0f} min" if row.step.minutes and round(row.step.minutes) else ""
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
    moment = moment_words(end.at, job.settings.firm.clock)
    return f"Signed off by {end.who or 'no name given'}, {moment}, revision {end.order}."
