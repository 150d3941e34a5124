"""Suspects and changes in words, as the screen, the job sheet and the customer's page print them."""

from __future__ import annotations

import math

from ohmcensus.core.diagnosis.apart import Alike
from ohmcensus.core.diagnosis.changes import cure
from ohmcensus.core.diagnosis.posterior import RULED_OUT, Diagnosis
from ohmcensus.core.diagnosis.question import Question
from ohmcensus.core.event import BypassRemoved, Changed, Event, RunWatched
from ohmcensus.core.job.case import Case
from ohmcensus.core.machine.asked import run_words
from ohmcensus.core.machine.stamped import rating_unit
from ohmcensus.core.quantity import Unit
from ohmcensus.core.sheet import Sheet


def cured_words(case: Case) -> str:
    """Say what cured the fault and what to swap back, empty while no run has passed."""
    found = cure(case)
    if found is None:
        return ""
    parts = {part.id: part.title for part in case.sheet.parts}
    done = ", ".join(f"{parts.get(row.part, row.part)} ({row.intervention.words})" for row in found.changes)
    if found.is_conclusive and found.failed:
        return (
            f"It runs through after one change: {done}. What came out had failed by itself: {found.failed}. Conclusive."
        )
    if found.is_conclusive:
        return f"It runs through. One change stands between the last failure and this run: {done}. Conclusive."
    if not found.changes:
        return "It runs through, and nothing was changed: the fault comes and goes. Not conclusive."
    settle, bench = parts.get(found.swap_back, ""), parts.get(found.on_the_bench, "")
    remedy = f" Put the former {settle} back and run it again to settle it." if settle else ""
    if bench:
        remedy = f" Never fit the former {bench} again, it failed a safety test: measure it on the bench to settle it."
    if found.unread:
        return f"It runs through after {done}. Not conclusive: {', '.join(found.unread)} was not read good since."
    why = f"{len(found.changes)} changes" if len(found.changes) > 1 else "a failure that nobody watched"
    return f"It runs through after {done}. Not conclusive: {why}.{remedy}"


def chance_words(chance: float) -> str:
    """Say a chance in a word and in percent: "likely, 62 %"; never more than 99 %, "ruled out" under a half."""
    if chance < RULED_OUT:
        return "ruled out"
    word = next(word for least, word in _CHANCES if chance >= least)
    return f"{word}, {min(99, max(1, round(100 * chance)))} %"


_CHANCES = ((0.95, "certain"), (0.5, "likely"), (0.1, "possible"), (0.0, "hardly"))


def alike_words(row: Alike, case: Case) -> str:
    """Say that no test left tells two suspects apart."""
    one, other = (case.sheet.known_part(part).title for part in row.parts)
    best = f"the best of them differs in {row.variation:.0%} of its readings" if row.test else "none is left"
    return f"{one} and {other}: no test left on this sheet tells them apart; {best}."


_QUANTITIES = {Unit.WATT: "the watts", Unit.OHM: "the ohms", Unit.FARAD: "the microfarads"}


def plate_words(sheet: Sheet, part: str, rating: str) -> str:
    """Say which figure is to be read where: "Heater: read the watts stamped on it"."""
    quantity = _QUANTITIES.get(rating_unit(sheet, part, rating), "the figure")
    return f"{sheet.known_part(part).title}: read {quantity} stamped on it"


def why_words(row: Question, known: Diagnosis) -> str:
    """Say in one sentence what a question settles: the suspect whose chance it moves most."""
    if row.because:
        return row.because
    if row.rating:
        return "It reads just outside: another variant may be fitted, and the stamp holds before the sheet."
    if math.isinf(row.score) and not row.is_repeat:
        return "The leading suspect was not measured itself yet: nothing is named before that."
    if math.isinf(row.score):
        return "Everything rests on it: a slip of the hand is likelier than you think."
    if row.is_repeat:
        share = row.bits / known.bits
        return f"Read it once more: a slip would explain it; settles about {share:.0%} of what is undecided."
    table, outcomes = known.table, known.table.tests[row.test]
    joint = (table.involves * known.chance) @ outcomes.chance
    total = known.chance @ outcomes.chance
    spread = abs(joint / total.clip(1e-12) - known.of_part[:, None]) @ total
    at = int(spread.argmax())
    part = table.sheet.part(table.parts[at])
    share = row.bits / max(known.bits, 1e-9)
    name = part.title if part else ""
    return f"Tells {name} from the others; settles about {share:.0%} of what is undecided."


def change_words(event: Event[Changed] | Event[RunWatched] | Event[BypassRemoved], case: Case) -> str:
    """Say a change, a run that was watched, or that a bypass came out."""
    body = event.body
    if isinstance(body, BypassRemoved):
        return f"Bypass taken out: {body.words}"
    if isinstance(body, RunWatched):
        return f"Run: {run_words(case.sheet).get(body.outcome, body.outcome)}"
    part = case.sheet.part(body.part)
    said = f"{part.title if part else body.part}: {body.intervention.words}"
    more = "; ".join(row for row in (body.fitted, body.words) if row)
    return f"{said}, {more}" if more else said
