"""Mend, replace, or give up: costs by hand, lives against scipy's Weibull distribution."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from scipy.integrate import quad
from scipy.stats import weibull_min

from ohmcensus.core.worth import (
    WEAR_SHAPE,
    Assumptions,
    Condition,
    Offer,
    fails_within,
    options,
    usual_offers,
    years_left,
)

NEW = Offer(condition=Condition.NEW, price=40, fails=0.0)


def test_costs_add_up_by_hand() -> None:
    """60 an hour, 30 minutes, 35 the visit, 40 the part: 105; nine in ten sure costs a tenth of another visit."""
    sure = Assumptions(hour=60, call_out=35, minutes=30, offers=(NEW,), machine_price=500)
    rows = {row.id: row for row in options(sure)}
    assert rows["replace_new"].now == pytest.approx(105)
    assert rows["replace_new"].expected == pytest.approx(105)
    assert rows["give_up"].now == pytest.approx(535)
    unsure = {row.id: row for row in options(sure.model_copy(update={"sure": 0.9}))}
    assert unsure["replace_new"].expected == pytest.approx(105 + 0.1 * 65)


def test_mending_is_offered_only_where_it_can_be_done() -> None:
    usual = Assumptions(offers=usual_offers(40))
    assert "mend" not in {row.id for row in options(usual)}
    rows = {row.id: row for row in options(usual.model_copy(update={"mend_minutes": 20.0, "mend_fails": 0.5}))}
    again = usual.call_out + usual.hour / 2 + 40
    assert rows["mend"].expected == pytest.approx(usual.call_out + usual.hour / 3 + 0.5 * again)


@given(st.floats(0, 30), st.floats(2, 25))
def test_lives_are_those_of_the_weibull_distribution(age: float, life: float) -> None:
    """Against ``scipy.stats.weibull_min``: survival, and the mean residual life by its integral."""
    there = weibull_min(WEAR_SHAPE, scale=life / weibull_min(WEAR_SHAPE).mean())
    assert there.mean() == pytest.approx(life)
    if there.sf(age) > 1e-9:
        assert fails_within(age, life) == pytest.approx(1 - there.sf(age + 1) / there.sf(age), abs=1e-6)
        beyond = quad(there.sf, age, age + 12 * life, limit=200)[0] / there.sf(age)
        assert years_left(age, life) == pytest.approx(beyond, rel=1e-4)


@given(st.floats(0, 40), st.floats(0, 20), st.floats(0, 1))
def test_an_older_machine_and_a_doubtful_part_never_make_a_repair_dearer_to_refuse(
    age: float, more: float, sure: float
) -> None:
    def year(**changed: float) -> float:
        given = Assumptions(offers=(NEW,), **changed)
        return {row.id: row.per_year for row in options(given)}["replace_new"]

    assert year(age_years=min(60.0, age + more)) >= year(age_years=age) - 1e-9
    assert year(sure=sure) >= year(sure=1.0) - 1e-9


@pytest.mark.parametrize(
    "wrong", [{"hour": -1}, {"sure": 1.2}, {"life_years": 0}, {"offers": ()}, {"age_years": float("nan")}]
)
def test_figures_that_cannot_be_are_refused(wrong: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        Assumptions.model_validate({"offers": (NEW,), **wrong})
