"""Limits and gates: what a profile or a class asks for is what stands before power, with the reading's whole error."""

from __future__ import annotations

import pytest
from tests.core.case_of import Log

from ohmcensus.core.event import Changed, Intervention, Isolated
from ohmcensus.core.limits.profile import BUILT_IN, LimitProfile
from ohmcensus.core.proof import criteria
from ohmcensus.core.safety import may
from ohmcensus.services.at_hand.sheets import find_sheet

STRICT = BUILT_IN[0].model_copy(
    update={"id": "ours", "title": "Ours", "class_i_megohm": 50.0, "heating_megohm": 50.0, "class_ii_megohm": 50.0}
)


def job(protection_class: str = "I", profile: LimitProfile | None = None, part: str = "valve") -> Log:
    """Return a job on which a part was changed, proved dead, with a circuit that breaks."""
    sheet = find_sheet("fl7-u").model_copy(update={"protection_class": protection_class})
    log = Log(sheet)
    if profile is not None:
        log.case = log.case.__class__(sheet, profile=profile)
    log.did(Isolated()).read("source 231", "dead ln 0.2", "dead le 0.1", "dead ne 0.1", "dead filter 0.3", "source 231")
    return log.did(Changed(part=part, intervention=Intervention.REPLACED))


def has_power(log: Log) -> bool:
    return may(log.case, log.safety, sign_off=False).power


@pytest.mark.parametrize(
    ("protection_class", "profile", "reads", "is_allowed"),
    [
        ("I", None, "0.5M", True),
        ("I", None, "0.25M", False),
        ("I", None, "0.31M", False),
        ("II", None, "0.5M", False),
        ("II", None, "1.9M", False),
        ("II", None, "2.2M", True),
        ("I", STRICT, "40M", False),
        ("I", STRICT, "80M", True),
        ("II", STRICT, "40M", False),
    ],
)
def test_the_insulation_that_a_class_and_a_profile_ask_for_stands_before_power(
    protection_class: str, profile: LimitProfile | None, reads: str, *, is_allowed: bool
) -> None:
    log = job(protection_class, profile)
    assert not has_power(log), "a changed part is read first"
    assert has_power(log.read(f"cord insulation {reads}")) is is_allowed


@pytest.mark.parametrize(("reads", "is_allowed"), [("0.05", True), ("0.27", True), ("0.31", False), ("1.2", False)])
def test_the_earth_of_a_changed_heater_stands_before_power(reads: str, *, is_allowed: bool) -> None:
    log = job(part="heater").read("cord insulation >299M", "heater pe >299M")
    assert not has_power(log)
    assert has_power(log.read(f"heater earth {reads}")) is is_allowed


def test_class_two_asks_for_no_earth_and_for_a_touch_current() -> None:
    two, one = ({row.id for row in criteria(log.case, log.safety)} for log in (job("II"), job("I")))
    assert "protective_conductor" in one - two
    assert "touch" in two - one


@pytest.mark.parametrize("profile", BUILT_IN, ids=lambda row: row.id)
def test_no_built_in_profile_lets_a_dead_short_to_earth_pass(profile: LimitProfile) -> None:
    for protection_class in ("I", "II"):
        assert not has_power(job(protection_class, profile).read("cord insulation 0"))
