"""What a job is proposed to cost."""

from __future__ import annotations

from collections.abc import Sequence

from ohmcensus.core.event import Changed, CostLine, CostsNoted, Intervention
from ohmcensus.core.firm import Firm
from ohmcensus.core.job.case import Case
from ohmcensus.core.job.work_time import worked_minutes
from ohmcensus.core.shelf import OrderState, WantedPart


def proposed_costs(case: Case, wanted: Sequence[WantedPart], *, hour: float, call_out: float, firm: Firm) -> CostsNoted:
    """Return what may be charged: the work by the clock, the visit, and each part that was replaced.

    Parameters
    ----------
    case, wanted
        The job, and the parts that it wants.
    hour, call_out
        Price of an hour of work, and of a visit, before tax.
    firm
        Whose currency and tax they are in.

    Notes
    -----
    A part's price is that of the offer that was taken, else the sheet's own; a part without a price is left out.
    """
    return CostsNoted(
        minutes=float(round(worked_minutes(case))),
        hour=hour,
        call_out=call_out,
        lines=tuple(_lines(case, wanted)),
        currency=firm.currency,
        tax_name=firm.tax_name,
        tax_percent=firm.tax_percent,
    )


def _lines(case: Case, wanted: Sequence[WantedPart]) -> list[CostLine]:
    offers = {row.part: row.taken for row in wanted if row.taken and row.state is not OrderState.RETURNED}
    replaced = dict.fromkeys(
        event.body.part for event in case.of(Changed) if event.body.intervention is Intervention.REPLACED
    )
    found = []
    for name in replaced:
        part, offer = case.sheet.known_part(name), offers.get(name)
        price = offer.price if offer else part.price
        if price:
            found.append(CostLine(words=part.title, amount=float(price)))
    return found


def cost_rows(case: Case) -> tuple[tuple[str, str], ...]:
    """Return what is charged, line by line with the total last; none while no costs were noted."""
    event = case.last(CostsNoted)
    if event is None:
        return ()
    noted = event.body
    rows = [(f"Work, {noted.minutes:g} min at {noted.hour:.2f} an hour", noted.work), ("Visit", noted.call_out)]
    rows += [(line.words, line.amount) for line in noted.lines]
    named = [(words, f"{amount:.2f}") for words, amount in rows if amount]
    if noted.tax_percent:
        tax = f"{noted.tax_name or 'Tax'} {noted.tax_percent:g} %"
        named += [("Before tax", f"{noted.net:.2f}"), (tax, f"{noted.tax:.2f}")]
    return (*named, ("Total", total_words(noted)))


def total_words(costs: CostsNoted) -> str:
    """Return what it all comes to, with its currency."""
    return f"{costs.total:.2f} {costs.currency}".strip()
