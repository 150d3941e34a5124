"""How a search stands, in words: what was found by which reading, what is left over, and what to do about it."""

from __future__ import annotations

from collections.abc import Sequence

from ohmcensus.core.diagnosis.conclusion import Standing
from ohmcensus.core.diagnosis.posterior import Diagnosis, Observation
from ohmcensus.core.diagnosis.question import Reach
from ohmcensus.core.diagnosis.search import Search
from ohmcensus.core.diagnosis.second import explained, facts
from ohmcensus.core.diagnosis.words import chance_words, plate_words
from ohmcensus.core.judgement import CensusLine
from ohmcensus.core.machine.asked import asked_words
from ohmcensus.core.sheet import Sheet

_MOST_LEFT = 3


def standing_words(found: Search, lines: Sequence[CensusLine], standing: Standing, reach: Reach) -> str:
    """Say how far it is, and what to do."""
    sheet = found.known.table.sheet
    known = found.found.known
    match standing:
        case Standing.NAMED:
            return f"{deciding_words(found, lines, found.named[0])}{_left_words(found)}"
        case Standing.TWO_NAMED:
            return " ".join(deciding_words(found, lines, part) for part in found.named)
        case Standing.ANOTHER_VARIANT:
            part, _, rating = found.found.plate.partition(".")
            asked = plate_words(sheet, part, rating)
            said = f"{asked}. It reads just outside what the sheet says: another variant may be fitted."
        case Standing.REPEAT:
            said = _again_words(found, sheet)
        case Standing.NOTHING_FOUND:
            said = f"Nothing found: no fault that these tests see. {_untested(known, reach)}"
        case Standing.NOTHING_SEPARATES | Standing.SERVICE_DATA:
            said = _apart_words(found, standing)
        case _:
            said = "Not settled yet: go on measuring." if known.observations else _UNASKED
    return f"{_certain_words(found, lines)}{said}"


_UNASKED = "Nothing is known yet but how often parts fail."


def deciding_words(found: Search, lines: Sequence[CensusLine], part: str) -> str:
    """Say by which reading a part is named, and which complaint it explains."""
    sheet = found.known.table.sheet
    title = sheet.known_part(part).title
    told = explained(found.known, part)
    explains = f" Explains {', '.join(told)}." if told else ""
    own = [row for row in facts(found.known) if part in row.convicts or (row.outcome and row.outcome.of == part)]
    best = max(own, key=lambda row: _weight(found.known, row, part), default=None) or _heaviest(found, part)
    if best is None:
        return f"{title}: all that was found fits it.{explains}"
    if best.outcome is None:
        return f"{best.title}.{explains}"
    line = next((row for row in lines if row.test is not None and row.test.id == best.id and row.answer), None)
    if line is None or line.test is None:
        return f"{title}. {best.title}.{explains}"
    window = line.answer.judgement.window or line.test.window if line.answer else line.test.window
    return f"{title}: {line.test.title} reads {line.reads}; it should read {window.shown}.{explains}"


def _certain_words(found: Search, lines: Sequence[CensusLine]) -> str:
    """Say what is certain already where a second fault is looked for."""
    if not found.first:
        return ""
    left = ", ".join(row.title.removeprefix("Told: ") for row in found.left)
    return f"{deciding_words(found, lines, found.first)} It does not explain: {left}. A second fault: "


def _left_words(found: Search) -> str:
    if not found.left:
        return ""
    left = ", ".join(row.title.removeprefix("Told: ") for row in found.left)
    return f" Not explained by it: {left}. Look again once it is mended."


def _again_words(found: Search, sheet: Sheet) -> str:
    """Say why a guard asks for a test before anything is named."""
    known, again = found.found.known, found.found.again
    leader = sheet.part(known.leader)
    name = leader.title if leader else "the machine"
    odd = next((row.title for row in known.observations if row.id == again), again)
    if found.found.is_unmeasured:
        return f"{name} leads, and {asked_words(again, sheet)} was not measured yet. Measure it first."
    if again == known.unfit:
        return f"These readings do not fit any single suspect. The likeliest mistake: {odd}. Read it again."
    return f"{name} rests on one reading alone: {odd}. Read it once more before naming it."


def _apart_words(found: Search, standing: Standing) -> str:
    """Say that no test is left, and what would tell."""
    titles = {part.id: part.title for part in found.known.table.sheet.parts}
    rows = sorted(zip(found.known.table.parts, found.of_part.tolist(), strict=True), key=lambda row: -row[1])
    first, second = titles[rows[0][0]], titles[rows[1][0]]
    if standing is Standing.SERVICE_DATA:
        return (
            f"No test left tells {first} and {second} apart by common ranges alone: "
            "look up the maker's figures for them and put them on the sheet."
        )
    return (
        f"No test left tells {first} and {second} apart. Mend or change one, {first} first, and run it: "
        f"where the fault stays it is the other."
    )


def _untested(known: Diagnosis, reach: Reach) -> str:
    """Say who is still possible, and how many tests were not made."""
    order = sorted(range(len(known.table.parts)), key=lambda at: -known.of_part[at])[:_MOST_LEFT]
    titles = {part.id: part.title for part in known.table.sheet.parts}
    named = [f"{titles[known.table.parts[at]]} ({chance_words(float(known.of_part[at]))})" for at in order]
    count = len(set(known.table.tests) - reach.left_out)
    return f"Still possible: {', '.join(named)}. {count} tests were not made."


def _weight(known: Diagnosis, row: Observation, part: str) -> float:
    at = known.table.parts.index(part)
    return float(((row.log - row.log[-1]) * known.table.involves[at]).max())


def _heaviest(found: Search, part: str) -> Observation | None:
    """Return the test or look that speaks most for a part."""
    known = found.known
    rows = [row for row in known.observations if row.outcome is not None and _weight(known, row, part) > 0]
    return max(rows, key=lambda row: _weight(known, row, part), default=None)
