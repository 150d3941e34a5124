"""The texts that figures are taken from, and what confirms them."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from ohmcensus.core.limits.profile import BUILT_IN
from ohmcensus.core.limits.texts import Confirmation, all_texts, profile_figures, standing

READ = {"edition": "EN 50678:2020", "by": "Duty technician", "on": "2026-06-01"}


def test_every_profile_and_text_is_named_once_with_its_figures() -> None:
    own = BUILT_IN[0].model_copy(update={"id": "ours", "title": "Ours"})
    texts = all_texts([own])
    assert texts[0].title == "Ours"
    assert len({row.id for row in texts}) == len(texts)
    assert all(row.figures for row in texts)


@pytest.mark.parametrize(
    "field",
    ["class_i_megohm", "heating_megohm", "class_ii_megohm", "part_ma", "earth_ohm", "conductor_ma", "touch_ma"],
)
def test_a_figure_that_changes_is_to_be_confirmed_again(field: str) -> None:
    before = BUILT_IN[0]
    confirmed = Confirmation(text=before.id, figures=profile_figures(before), **READ)
    after = before.model_copy(update={field: 0.123})
    assert standing(all_texts([before])[0], [confirmed]) == confirmed
    assert standing(all_texts([after])[0], [confirmed]) is None


def test_ticks_and_kinds_of_part_are_figures_too() -> None:
    before = BUILT_IN[0]
    for change in ({"is_cord_added": True}, {"is_held_on_gfci": True}, {"kinds_megohm": {"heater": 0.5}}):
        assert profile_figures(before.model_copy(update=change)) != profile_figures(before)


@pytest.mark.parametrize("on", ["", "2026-13-01", "1 June 2026", "2026-6-1"])
def test_a_day_is_a_day(on: str) -> None:
    with pytest.raises(ValidationError):
        Confirmation(text="rcd", figures="", **{**READ, "on": on})
