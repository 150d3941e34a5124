"""The three endings of a job: safe, unsafe, not tested; and what keeps a machine from going out."""

from __future__ import annotations

from collections.abc import Iterator

from ohmcensus.core.errors import InputError, SafetyRefusalError
from ohmcensus.core.event import Ended, LeftAs
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.strip_down import open_panels, unfinished
from ohmcensus.core.proof.state import is_asked, proofs
from ohmcensus.core.safety import Safety, SafetyState
from ohmcensus.core.safety.danger import OUTLET_LINE
from ohmcensus.core.safety.needs import own_needs, part_title
from ohmcensus.core.safety.state import Danger
from ohmcensus.core.safety.words import DangerId


def blocking(case: Case, safety: Safety, *, outlet_reported: bool = False) -> tuple[str, ...]:
    """Return everything that blocks signing off, a sentence each; empty where the machine may go out as safe.

    Open dangers always do. Proof is asked of a machine on which something was changed, came off or was dangerous: a
    job that ends at the outlet, or with nothing done, needs none.

    Parameters
    ----------
    case, safety
        Sheet and everything observed; where the job stands.
    outlet_reported
        Whether an outlet without earth was reported and the machine stays unplugged.
    """
    return tuple(_blocking(case, safety, outlet_reported=outlet_reported))


def refuse_sign_off(case: Case, body: Ended, safety: Safety) -> None:
    """Refuse an ending that is not true.

    Raises
    ------
    SafetyRefusalError
        As safe while something blocks it, with the list; as unsafe while the machine is not cut off; as not tested
        while a danger stands or a line failed; at all in live mode.
    InputError
        For lines said to be not tested that are no lines of this proof, or not all of those that are missing.
    """
    if safety.state is SafetyState.LIVE:
        what = "live mode: no job ends while it is on"
        raise SafetyRefusalError(what=what, remedy="unplug it, and note that in Safe", field="safety")
    if body.is_labelled_unsafe:
        _refuse_unsafe_end(body, safety)
        return
    if body.not_tested:
        _refuse_not_tested(case, body, safety)
        return
    reported = body.outlet_reported and body.left_as is LeftAs.UNPLUGGED and safety.isolated
    found = blocking(case, safety, outlet_reported=reported)
    if found:
        remedy = "show what is missing; or label the machine unsafe and tell the customer"
        raise SafetyRefusalError(what=f"not signed off: {'; '.join(found)}", remedy=remedy, field="hazard")


def _refuse_unsafe_end(body: Ended, safety: Safety) -> None:
    if not safety.isolated and body.left_as is not LeftAs.CUSTOMER_REFUSED:
        what = "an unsafe machine is cut off before it is left"
        raise SafetyRefusalError(what=what, remedy="unplug it or lock it off, and note that in Safe", field="safety")
    if safety.danger(DangerId.LIVE_THOUGH_FORBIDDEN) is not None and not safety.isolated:
        what = "the machine stands under voltage although that is forbidden"
        raise SafetyRefusalError(what=what, remedy="cut it off, and note that in Safe", field="safety")


def _refuse_not_tested(case: Case, body: Ended, safety: Safety) -> None:
    """Refuse to end as not tested where more than missing lines stands in the way."""
    rows = proofs(case, safety) if is_asked(safety) else ()
    missing = {row.criterion.id: row for row in rows if row.is_good is None}
    strange = [name for name in body.not_tested if name not in {row.criterion.id for row in rows}]
    if strange:
        known = ", ".join(missing) or "none"
        what = f"'{strange[0]}' is not a line of this proof"
        raise InputError(what=what, remedy=f"not shown are {known}", field="not_tested")
    asked = {name: row for name, row in missing.items() if not row.criterion.is_optional}
    left = [row.criterion.named for name, row in asked.items() if name not in body.not_tested]
    blocked = [*_standing(case, safety), *(f"{r.criterion.named} failed" for r in rows if r.is_good is False)]
    blocked += [f"{title} is not shown and not named" for title in left]
    if blocked:
        remedy = "show it; or label the machine unsafe and tell the customer"
        raise SafetyRefusalError(what=f"not ended: {'; '.join(blocked)}", remedy=remedy, field="not_tested")


def _blocking(case: Case, safety: Safety, *, outlet_reported: bool) -> Iterator[str]:
    if safety.state is SafetyState.LIVE:
        yield "live mode is on (unplug it first)"
    yield from _standing(case, safety, outlet_reported=outlet_reported)
    if is_asked(safety):
        for row in proofs(case, safety):
            if row.is_good is None and not row.criterion.is_optional:
                yield f"{row.criterion.named} is not shown"
            elif row.is_good is False:
                yield f"{row.criterion.named} failed"


def _standing(case: Case, safety: Safety, *, outlet_reported: bool = False) -> Iterator[str]:
    """Yield the dangers, what is off, and the lines of changed parts that were not read."""
    for danger in safety.dangers:
        if not (outlet_reported and is_outlets(danger)):
            yield f"{danger.words} ({danger.lifted_by})"
    yield from unfinished(case)
    stripped = open_panels(case, strip_only=True)
    for panel in sorted(safety.walk.covers - stripped):
        title = case.sheet.panels[panel].title.lower() if panel in case.sheet.panels else panel
        yield f"off is {title} (shut it, and note that)"
    for part in safety.walk.marks.changed:
        for need in own_needs(part, safety.walk):
            yield f"the {part_title(part, case.terms)} was changed and is not read since ({need.words})"


def is_outlets(danger: Danger) -> bool:
    """Tell whether a danger is the outlet's alone, so that the machine may stay behind unplugged."""
    return danger.id is DangerId.EARTH and all(row.line == OUTLET_LINE for row in danger.causes)
