"""Mend the part, replace it, or give up the machine: what each choice is expected to cost, and why.

All default figures are ours (common practice, no source): every one is stated with its answer and can be changed.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from pydantic import BaseModel, ConfigDict, Field

# How life times of machines scatter about their mean: shape of a Weibull distribution, wear more than chance (ours).
WEAR_SHAPE = 2.5
MINUTES_AN_HOUR = 60.0


class Condition(StrEnum):
    """Where a part comes from."""

    NEW = "new"
    TESTED_USED = "tested_used"
    MARKETPLACE = "marketplace"

    @property
    def words(self) -> str:
        """The condition in words."""
        return _CONDITION_WORDS[self]


_CONDITION_WORDS = {
    Condition.NEW: "new",
    Condition.TESTED_USED: "used, tested",
    Condition.MARKETPLACE: "marketplace, untested",
}


class Offer(BaseModel):
    """A part that can be had.

    Attributes
    ----------
    condition
        Where it comes from.
    price
        In the currency of the firm.
    fails
        Chance that it has to be replaced again within a year, 0 to 1.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    condition: Condition
    price: float = Field(ge=0, le=1e5, allow_inf_nan=False)
    fails: float = Field(ge=0, le=1, allow_inf_nan=False)


class Assumptions(BaseModel):
    """What the costs are worked out from.

    Attributes
    ----------
    hour, call_out
        Price of an hour of work, and of a visit.
    minutes
        To replace the part, its covers included.
    offers
        Where the part can be had.
    mend_minutes, mend_price, mend_fails
        To mend it instead, with what that takes; chance that this does not last a year. No minutes: not to be mended.
    sure
        Chance that this part is the fault.
    machine_price
        Of another machine, delivered and connected.
    age_years, life_years
        Age, and mean life of such machines.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    hour: float = Field(default=60.0, ge=0, le=1e4, allow_inf_nan=False)
    call_out: float = Field(default=35.0, ge=0, le=1e4, allow_inf_nan=False)
    minutes: float = Field(default=30.0, ge=0, le=1440, allow_inf_nan=False)
    offers: tuple[Offer, ...] = Field(min_length=1, max_length=10)
    mend_minutes: float = Field(default=0.0, ge=0, le=1440, allow_inf_nan=False)
    mend_price: float = Field(default=0.0, ge=0, le=1e5, allow_inf_nan=False)
    mend_fails: float = Field(default=0.35, ge=0, le=1, allow_inf_nan=False)
    sure: float = Field(default=1.0, ge=0, le=1, allow_inf_nan=False)
    machine_price: float = Field(default=520.0, ge=0, le=1e5, allow_inf_nan=False)
    age_years: float = Field(default=6.0, ge=0, le=60, allow_inf_nan=False)
    life_years: float = Field(default=11.0, gt=0, le=60, allow_inf_nan=False)


@dataclass(frozen=True, slots=True)
class Option:
    """One way to go on.

    Parameters
    ----------
    id, title
        Which.
    now
        What it costs today.
    expected
        The same with what may follow: the wrong part, a part that does not last.
    years
        How long the machine is expected to run after it.
    per_year
        What a year of washing then costs: the figure to compare.
    """

    id: str
    title: str
    now: float
    expected: float
    years: float
    per_year: float


def usual_offers(price: float) -> tuple[Offer, ...]:
    """Return where a part can usually be had, from its price new."""
    return (
        Offer(condition=Condition.NEW, price=price, fails=0.02),
        Offer(condition=Condition.TESTED_USED, price=round(0.5 * price, 2), fails=0.08),
        Offer(condition=Condition.MARKETPLACE, price=round(0.35 * price, 2), fails=0.25),
    )


def options(given: Assumptions) -> tuple[Option, ...]:
    """Return every choice, the least cost a year of use first.

    Notes
    -----
    A repair that fails within a year is done once more with a new part and another visit. If the fault is another
    part, one more visit of the same length is counted. A repaired machine runs for its mean residual life, another
    one for a whole life.
    """
    return tuple(sorted(_options(given), key=lambda row: row.per_year))


def fails_within(age_years: float, life_years: float, years: float = 1.0) -> float:
    """Return the chance that a machine of an age comes to its end within some years more.

    Parameters
    ----------
    age_years, life_years
        Age, and mean life of such machines.
    years
        How many more.
    """
    scale = _scale(life_years)
    return 1 - math.exp((age_years / scale) ** WEAR_SHAPE - ((age_years + years) / scale) ** WEAR_SHAPE)


def years_left(age_years: float, life_years: float) -> float:
    """Return the mean residual life of a machine of an age, years.

    Notes
    -----
    Weibull: m(t) = (η/k)·Γ(1/k, (t/η)^k)·exp((t/η)^k), with Γ(a, x) the upper incomplete gamma function.
    """
    from scipy.special import gammaincc  # noqa: PLC0415 - a third of a second to load, and no page needs it before its first suspects

    scale, inverse = _scale(life_years), 1 / WEAR_SHAPE
    worn = min((age_years / scale) ** WEAR_SHAPE, _WORN_OUT)
    return float(scale * inverse * math.gamma(inverse) * gammaincc(inverse, worn) * math.exp(worn))


# Past this the machine has outlived nearly all of its kind; the formula would divide nothing by nothing.
_WORN_OUT = 100.0


def _scale(life_years: float) -> float:
    return life_years / math.gamma(1 + 1 / WEAR_SHAPE)


def _options(given: Assumptions) -> Iterator[Option]:
    left = years_left(given.age_years, given.life_years)
    new = min((row.price for row in given.offers if row.condition is Condition.NEW), default=given.offers[0].price)
    again = given.call_out + _work(given, given.minutes) + new
    other = (1 - given.sure) * (given.call_out + _work(given, given.minutes))
    for offer in given.offers:
        now = given.call_out + _work(given, given.minutes) + offer.price
        expected = now + other + offer.fails * again
        title = f"Replace the part, {offer.condition.words}"
        yield Option(f"replace_{offer.condition.value}", title, now, expected, left, expected / left)
    if given.mend_minutes:
        now = given.call_out + _work(given, given.mend_minutes) + given.mend_price
        expected = now + other + given.mend_fails * again
        yield Option("mend", "Mend the part", now, expected, left, expected / left)
    now = given.call_out + given.machine_price
    life = years_left(0.0, given.life_years)
    yield Option("give_up", "Give up the machine, fit another", now, now, life, now / life)


def _work(given: Assumptions, minutes: float) -> float:
    return given.hour * minutes / MINUTES_AN_HOUR
