"""The customer's page, in sentences that need no trade: told, found, done, whether it is safe, what it costs."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ohmcensus.core.diagnosis.mending import AS_IT_WAS
from ohmcensus.core.diagnosis.words import cured_words
from ohmcensus.core.event import BypassRemoved, Changed, Ended, Intervention
from ohmcensus.core.job.case import Case
from ohmcensus.core.safety import Safety
from ohmcensus.core.safety.danger_rows import altered_rows, open_rows
from ohmcensus.core.shelf.costs import cost_rows
from ohmcensus.exchange.report import ReportProof, ReportReading, ReportSection

NO_CAUSE = "No cause was established."
ADVICE = (
    "Look at the fill hoses once or twice a year: bulges, rust at the nut, kinks.",
    "Clean the drain filter after fluff, coins or hair pins, and twice a year anyway.",
)
_OPEN = "no connection at all"


def customer_page(
    case: Case,
    safety: Safety,
    *,
    named: str,
    shown: ReportReading | None,
    proofs: Sequence[ReportProof],
) -> tuple[ReportSection, ...]:
    """Return the sections of the customer's page, each with its sentences.

    Parameters
    ----------
    case, safety
        The job, and how it stands.
    named
        The parts that are named as the fault, in words; empty where none is.
    shown
        What reads outside at one of them, None where none does.
    proofs
        The proof as the sheet prints it.
    """
    sections = (
        ReportSection("What you told us", (told_words(case),)),
        ReportSection("What we found", tuple(_found(safety, named, shown)), below="reading"),
        ReportSection("What we did", tuple(_done(case))),
        ReportSection("Is it safe?", tuple(_safe(case, safety, proofs))),
        ReportSection("What it costs", tuple(_costs(case)), below="costs"),
        ReportSection("Good to know", ADVICE),
    )
    return tuple(row for row in sections if row.sentences)


def told_words(case: Case) -> str:
    """Say what the customer complained of."""
    said = case.complaint.words or "Nothing was said."
    symptoms = ", ".join(symptom.words for symptom in case.complaint.symptoms)
    return f"{said} ({symptoms})" if symptoms else said


def unsafe_words(case: Case, safety: Safety) -> tuple[str, ...]:
    """Say why a machine went out labelled unsafe: as it was written, then every danger that stands."""
    end = case.ended
    if end is None or not end.body.is_labelled_unsafe:
        return ()
    why = end.body.why
    return (why, *(row for row in open_rows(safety) if row not in why))


def _found(safety: Safety, named: str, shown: ReportReading | None) -> Iterator[str]:
    yield f"We found the {named.lower()} to be at fault." if named else NO_CAUSE
    if named and shown is not None:
        reads = _OPEN if shown.reads == "OL" else shown.reads
        yield f"We measured it ({shown.what}): {reads}. It should be {_in_words(shown.should)}."
    for row in altered_rows(safety):
        yield f"We found it altered: {row}."


def _costs(case: Case) -> Iterator[str]:
    yield from (f"Together that comes to {amount}." for _, amount in cost_rows(case)[-1:])


def _in_words(should: str) -> str:
    """Return what is right without the signs of the trade."""
    return should.replace("> ", "over ").replace("< ", "under ").replace("≥", "at least ")


def _done(case: Case) -> Iterator[str]:
    last = {event.body.part: event.body for event in case.of(Changed)}
    changes = [_change(last[part.id], part.title.lower()) for part in case.sheet.parts if part.id in last]
    mended = [event.body.words for event in case.of(BypassRemoved)]
    yield from (f"What had been altered was put right: {words}." for words in mended)
    yield from changes
    if not changes and not mended:
        yield "Nothing was changed on the machine."
    if cured_words(case):
        yield "It ran through after that."


def _change(body: Changed, part: str) -> str:
    """Say what was done to a part, and with which piece."""
    piece = f" ({body.fitted})" if body.fitted else ""
    match body.intervention:
        case Intervention.REPLACED if body.fitted.casefold() == AS_IT_WAS:
            return f"We fitted the former {part} again."
        case Intervention.REPLACED:
            return f"We replaced the {part}{piece}."
        case Intervention.MENDED:
            return f"We mended the {part}{f': {body.words}' if body.words else ''}."
        case Intervention.CLEANED:
            return f"We cleaned or dried the {part}."
        case Intervention.RESEATED:
            return f"We pushed the plugs and tags of the {part} home."
        case Intervention.ADJUSTED:
            return f"We adjusted the {part}."


def _safe(case: Case, safety: Safety, proofs: Sequence[ReportProof]) -> Iterator[str]:
    end: Ended | None = case.ended.body if case.ended else None
    if end is not None and end.is_labelled_unsafe:
        yield "The machine is not safe. Please do not use it, and keep it unplugged."
        yield from unsafe_words(case, safety)
        return
    if end is None:
        yield "The work is not finished: nothing is claimed of its safety yet."
        return
    good = sum(row.state == "good" for row in proofs)
    missing = [row.what[:1].lower() + row.what[1:] for row in proofs if row.state == "not shown"]
    failed = [row.what[:1].lower() + row.what[1:] for row in proofs if row.state == "bad"]
    if failed:
        yield f"It did not pass: {', '.join(failed)}. The table stands on the sheet."
    elif not proofs:
        yield "Its safety was not tested on this visit."
    elif not missing:
        yield f"We tested it after the work: all {good} tests are good. The table stands on the sheet."
    else:
        yield f"We tested it: {good} tests are good. Not tested: {', '.join(missing)}. The table stands on the sheet."
    if end.not_tested:
        left = ", ".join(name.replace("_", " ") for name in end.not_tested)
        yield f"Not tested, as we told you: {left}. Nothing is claimed of its safety."
    if end.outlet_reported:
        yield "Your outlet has no earth. Have an electrician mend it before the machine is plugged in."
