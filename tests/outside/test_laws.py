"""Laws and windows against reference libraries, published values and facts of the trade."""

from __future__ import annotations

import math

import GTC
import pint
import pytest
from thermistor_utils import Beta_converter
from uncertainties import ufloat

from ohmcensus.core.judgement import Verdict, choose_use, judge
from ohmcensus.core.machine import machine_tests
from ohmcensus.core.meter import Function, generic_meter
from ohmcensus.core.parts import part_kinds
from ohmcensus.core.physics.cable import CLASS_5_OHM_PER_M
from ohmcensus.core.physics.ohm_and_power import element_resistance_ohm, element_window_ohm, load_from
from ohmcensus.core.physics.temperature import winding_resistance_at
from ohmcensus.core.physics.thermistor import ntc_resistance_ohm
from ohmcensus.core.physics.uncertainty import Estimate, combined, from_interval
from ohmcensus.core.quantity import Unit, parse_indication
from ohmcensus.core.sheet import Sheet


@pytest.mark.parametrize(("volts", "watts"), [(230, 2000), (230, 1850), (120, 1000), (240, 5400), (208, 4056)])
def test_element_resistance_against_pint(volts: float, watts: float) -> None:
    unit: pint.UnitRegistry[float] = pint.UnitRegistry()
    ohms = ((volts * unit.volt) ** 2 / (watts * unit.watt)).to("ohm").magnitude
    assert element_resistance_ohm(volts, watts) == pytest.approx(ohms, rel=1e-12)
    window = element_window_ohm(volts, watts)
    most = ((volts * unit.volt) ** 2 / (1.05 * watts * unit.watt)).to("ohm").magnitude
    least = ((volts * unit.volt) ** 2 / (0.90 * watts * unit.watt)).to("ohm").magnitude
    assert (window.lo, window.hi) == pytest.approx((most, least), rel=1e-12)


def test_power_with_uncertainty_against_two_libraries() -> None:
    """P = V²/R, 230 ± 1.5 V and 24.0 ± 0.1 Ω: 2204.17 ± 30.18 W, by GTC and by uncertainties."""
    ours = combined(lambda volts, ohms: volts * volts / ohms, Estimate(230, 1.5), Estimate(24.0, 0.1))
    volts, ohms = GTC.ureal(230, 1.5), GTC.ureal(24.0, 0.1)
    theirs = volts * volts / ohms
    other = ufloat(230, 1.5) ** 2 / ufloat(24.0, 0.1)
    assert (ours.value, ours.standard) == pytest.approx((theirs.x, theirs.u), rel=1e-8)
    assert (ours.value, ours.standard) == pytest.approx((other.n, other.s), rel=1e-8)
    assert (round(ours.value, 2), round(ours.standard, 2)) == (2204.17, 30.18)


def test_a_reading_is_a_rectangular_distribution_as_the_gum_has_it() -> None:
    """Type B evaluation with known limits, GUM clause 4.3.7, as GTC's ``type_b.uniform`` computes it."""
    meter, shown = generic_meter("multimeter-6000"), parse_indication("25.9", Unit.OHM)
    interval = meter.interval_of(shown, Function.OHM)
    half_width = (interval.hi - interval.lo) / 2
    assert from_interval(25.9, interval).standard == pytest.approx(GTC.type_b.uniform(half_width), rel=1e-12)


@pytest.mark.parametrize("celsius", [-10.0, 0.0, 20.0, 25.0, 40.0, 60.0, 90.0])
def test_ntc_against_thermistor_utils(celsius: float) -> None:
    theirs = Beta_converter.from_beta(3977, 4700).resistance(celsius)
    assert ntc_resistance_ohm(4700, 3977, celsius) == pytest.approx(theirs, rel=1e-9)


@pytest.mark.parametrize(("celsius", "ohms"), [(0, 15933.2), (20, 5900.71), (60, 1157.43), (90, 431.73)])
def test_ntc_against_published_figures(celsius: float, ohms: float) -> None:
    """4700 Ω, β 3977: a printed table, from memory."""
    assert ntc_resistance_ohm(4700, 3977, celsius) == pytest.approx(ohms, rel=1e-5)


def test_copper_rule_against_the_standard_coefficient() -> None:
    """IEC 60028, from memory: annealed copper 0.00393 per K at 20 °C; with k = 234.5 that is 1/254.5."""
    assert winding_resistance_at(1.0, 20.0, 21.0) - 1.0 == pytest.approx(0.00393, abs=2e-6)
    assert winding_resistance_at(10.0, 20.0, 75.0) == pytest.approx(10 * (234.5 + 75) / 254.5, rel=1e-12)


def test_cords_are_near_the_resistivity_of_copper() -> None:
    """IEC 60028, from memory: 1/58 Ω·mm²/m; class 5 strands and their lay add 10 to 17 %."""
    for area, ohms_per_m in CLASS_5_OHM_PER_M.items():
        assert 1.10 < ohms_per_m * area * 58 < 1.17, area


# Facts of the trade: common practice, no source.


def test_a_25_ohm_heater_on_220_volts_draws_nine_amperes_and_gives_two_kilowatts() -> None:
    load = load_from(volts=220, ohms=25)
    assert load.amperes == pytest.approx(8.8)
    assert load.watts == pytest.approx(1936)
    assert load_from(volts=220, amperes=9).watts == pytest.approx(1980)


def test_twenty_to_thirty_ohms_is_a_usual_good_heater_at_230_volts() -> None:
    for watts in (1850, 2000, 2200, 2500):
        window = element_window_ohm(230, watts)
        assert window.lo > 19
        assert window.hi < 32


@pytest.mark.parametrize(("text", "verdict"), [("1.1k", Verdict.INSIDE), ("OL", Verdict.OPEN)])
def test_a_good_lock_reads_over_a_thousand_ohms_and_none_is_bad(fl7: Sheet, text: str, verdict: Verdict) -> None:
    test = next(test for test in machine_tests(fl7, 20.0) if test.id == "lock.ptc")
    use = choose_use(text, test, [generic_meter("multimeter-6000")], function=test.function)
    assert judge(use, test).verdict is verdict


def test_mains_may_lie_ten_percent_around_its_nominal() -> None:
    kind = part_kinds()["outlet"]
    for volts, lo, hi in ((120.0, 108.0, 132.0), (230.0, 207.0, 253.0)):
        window = kind.tests(kind.ratings.model_validate({"volts": volts}))[0].expect(20.0)
        assert (window.interval.lo, window.interval.hi) == pytest.approx((lo, hi))


def test_an_open_winding_and_a_blind_ohmmeter(fl7: Sheet) -> None:
    """A heater without continuity is open; one in range may still leak."""
    tests = {test.id: test for test in machine_tests(fl7, 20.0)}
    meters = [generic_meter("multimeter-6000")]
    element = tests["heater.element"]
    assert judge(choose_use("OL", element, meters, function=Function.OHM), element).verdict is Verdict.OPEN
    good = judge(choose_use("26.4", element, meters, function=Function.OHM), element)
    assert good.verdict is Verdict.INSIDE
    assert "leak" in good.blind_to
    assert math.isinf(tests["heater.pe"].window.interval.hi)
