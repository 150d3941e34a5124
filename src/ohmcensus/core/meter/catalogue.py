"""Generic instruments of the usual classes; their figures are ours and in the usual ranges."""

from __future__ import annotations

from ohmcensus.core.errors import UnknownNameError
from ohmcensus.core.meter.instrument import Function, Meter, Range


def _decades(first: float, counts: int, many: int, percent: float, digits: float) -> tuple[Range, ...]:
    """Return so many ranges a decade apart, each resolving its full scale into ``counts``."""
    scales = [first * 10**step for step in range(many)]
    return tuple(Range(full_scale=s, resolution=s / counts, percent=percent, digits=digits) for s in scales)


_DIODE = (Range(full_scale=2.0, resolution=0.001, percent=1.5, digits=3),)
_LENGTH = (Range(full_scale=0.15, resolution=0.0005, percent=0.0, digits=1),)

MULTIMETER_6000 = Meter(
    id="multimeter-6000",
    title="Multimeter, 6000 counts",
    functions={
        Function.OHM: _decades(600.0, 6000, 6, 0.9, 3),
        Function.VOLTS_AC: _decades(6.0, 6000, 3, 1.0, 3),
        Function.VOLTS_DC: _decades(0.6, 6000, 4, 0.5, 2),
        Function.DIODE: _DIODE,
        Function.CAPACITANCE: _decades(60e-9, 6000, 6, 3.0, 5),
        Function.AMPERE: (
            *_decades(0.06, 6000, 3, 1.2, 3),
            Range(full_scale=10.0, resolution=0.01, percent=1.2, digits=3),
        ),
        Function.HERTZ: _decades(600.0, 6000, 4, 0.1, 2),
        Function.TEMPERATURE: (Range(full_scale=400.0, resolution=0.1, percent=1.0, digits=10),),
        Function.LENGTH: _LENGTH,
    },
    input_impedance_ohm=10e6,
    lead_resistance_ohm=0.1,
    nulled=True,
)
MULTIMETER_2000 = Meter(
    id="multimeter-2000",
    title="Simple multimeter, 2000 counts, over-range shows a lone 1",
    functions={
        Function.OHM: _decades(200.0, 2000, 5, 1.0, 4),
        Function.VOLTS_AC: (
            Range(full_scale=200.0, resolution=0.1, percent=1.5, digits=10),
            Range(full_scale=750.0, resolution=1.0, percent=1.5, digits=10),
        ),
        Function.VOLTS_DC: _decades(0.2, 2000, 4, 0.8, 3),
        Function.DIODE: _DIODE,
        Function.LENGTH: _LENGTH,
    },
    input_impedance_ohm=1e6,
    lead_resistance_ohm=0.3,
    nulled=False,
    over_range_texts=frozenset({"1", "1."}),
    shows_ol=False,
)
APPLIANCE_TESTER = Meter(
    id="appliance-tester",
    title="Insulation and appliance tester, 500 V",
    functions={
        Function.CONTINUITY: (Range(full_scale=20.0, resolution=0.01, percent=2.0, digits=2),),
        Function.INSULATION: (Range(full_scale=299e6, resolution=0.01e6, percent=3.0, digits=2),),
        Function.LEAKAGE: (Range(full_scale=0.020, resolution=0.01e-3, percent=3.0, digits=3),),
        Function.VOLTS_AC: (Range(full_scale=400.0, resolution=1.0, percent=2.0, digits=2),),
    },
    input_impedance_ohm=400e3,
    lead_resistance_ohm=0.1,
    nulled=True,
    shows_ol=False,
)

TWO_POLE_TESTER = Meter(
    id="two-pole-tester",
    title="Two-pole voltage tester, lamps from 12 V",
    functions={Function.VOLTS_AC: (Range(full_scale=690.0, resolution=1.0, percent=15.0, digits=5),)},
    input_impedance_ohm=200e3,
    lead_resistance_ohm=0.1,
    shows_ol=False,
    lowest_step_v=12.0,
)

LOW_IMPEDANCE_METER = Meter(
    id="low-impedance-meter",
    title="Multimeter on its low-impedance volts range",
    functions={Function.VOLTS_AC: _decades(6.0, 6000, 3, 2.0, 3)},
    input_impedance_ohm=300e3,
    lead_resistance_ohm=0.1,
)
CLAMP_METER = Meter(
    id="clamp-meter",
    title="Clamp meter, 40 and 400 A",
    functions={
        Function.AMPERE: (
            Range(full_scale=40.0, resolution=0.01, percent=2.0, digits=5),
            Range(full_scale=400.0, resolution=0.1, percent=2.0, digits=5),
        ),
        Function.VOLTS_AC: (Range(full_scale=600.0, resolution=0.1, percent=1.5, digits=5),),
    },
    input_impedance_ohm=1e6,
)
LEAKAGE_CLAMP = Meter(
    id="leakage-clamp",
    title="Leakage clamp, around L and N or around the earth, 30 mA",
    functions={
        Function.LEAKAGE: (
            Range(full_scale=0.003, resolution=1e-6, percent=1.5, digits=5),
            Range(full_scale=0.030, resolution=1e-5, percent=1.5, digits=5),
        ),
        Function.AMPERE: (Range(full_scale=30.0, resolution=0.01, percent=1.5, digits=5),),
    },
    shows_ol=True,
)
RCD_TESTER = Meter(
    id="rcd-tester",
    title="RCD tester, ramp and time",
    functions={
        Function.RCD_CURRENT: (Range(full_scale=0.5, resolution=1e-4, percent=5.0, digits=2),),
        Function.RCD_TIME: (Range(full_scale=10.0, resolution=1e-3, percent=2.0, digits=2),),
        Function.VOLTS_AC: (Range(full_scale=400.0, resolution=1.0, percent=2.0, digits=2),),
    },
    input_impedance_ohm=400e3,
)

GENERIC_METERS: tuple[Meter, ...] = (
    MULTIMETER_6000,
    MULTIMETER_2000,
    APPLIANCE_TESTER,
    TWO_POLE_TESTER,
    LOW_IMPEDANCE_METER,
    CLAMP_METER,
    LEAKAGE_CLAMP,
    RCD_TESTER,
)


def generic_meter(meter_id: str) -> Meter:
    """Return a generic instrument by its id.

    Raises
    ------
    UnknownNameError
        If there is none of that id.
    """
    for meter in GENERIC_METERS:
        if meter.id == meter_id:
            return meter
    known = ", ".join(m.id for m in GENERIC_METERS)
    raise UnknownNameError(what=f"no meter '{meter_id}'", remedy=f"known are {known}", field="meter")
