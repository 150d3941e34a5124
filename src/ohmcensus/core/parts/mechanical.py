"""Parts that are looked at and felt, not measured: they stand in the same list of suspects."""

from __future__ import annotations

from collections.abc import Mapping

from ohmcensus.core.parts.build import fixed, plain
from ohmcensus.core.parts.fault import FaultMode
from ohmcensus.core.parts.kind import Brings, NoRatings, PartCheck, PartKind, Role
from ohmcensus.core.symptom import Symptom


def _mechanical(  # noqa: PLR0913, PLR0917 - a row of the table below
    kind: str,
    title: str,
    explains: Mapping[Symptom, float],
    check: PartCheck,
    repair: str,
    minutes: float,
    seen_outside: tuple[str, ...] = (),
    brings: tuple[Brings, ...] = (),
) -> PartKind[NoRatings]:
    """Return a kind of part without a point to probe: it is looked at."""
    return PartKind(
        kind=kind,
        title=title,
        traits=plain(Role.MECHANICAL),
        ratings=NoRatings,
        fault_modes=(),
        is_spare=False,
        explains=explains,
        checks=(check,),
        repair=repair,
        repair_minutes=minutes,
        seen_outside=seen_outside,
        brings=brings,
        pins=fixed(),
        tests=fixed(),
    )


_MOTORS = ("brushed_motor", "three_phase_motor", "single_phase_motor")

KINDS = (
    _mechanical(
        "drain_filter",
        "Drain filter",
        {Symptom.NO_DRAIN: 0.45, Symptom.NO_SPIN: 0.2, Symptom.NOISY: 0.1},
        PartCheck("filter", "Drain filter and sump", "coins, hair pins, fluff"),
        "clear it",
        10.0,
        ("drain_filter",),
    ),
    _mechanical(
        "drive_belt",
        "Drive belt",
        {Symptom.NO_TURN: 0.25, Symptom.NO_SPIN: 0.2, Symptom.NOISY: 0.1},
        PartCheck("belt", "Belt", "slipped off, frayed, glazed"),
        "put it back or replace it",
        15.0,
    ),
    _mechanical(
        "door_strike",
        "Door strike",
        {Symptom.NO_LOCK: 0.3, Symptom.NO_START: 0.15, Symptom.NO_OPEN: 0.1},
        PartCheck("strike", "Strike", "broken, bent, worn"),
        "replace the strike",
        15.0,
        ("strike",),
    ),
    _mechanical(
        "door_handle",
        "Door handle",
        {Symptom.NO_OPEN: 0.4},
        PartCheck("handle", "Handle", "moves without pulling the latch"),
        "replace the handle",
        20.0,
        ("strike",),
    ),
    _mechanical(
        "fill_hoses",
        "Fill hoses",
        {Symptom.LEAKS: 0.3, Symptom.NO_WATER: 0.25, Symptom.STOPS: 0.05},
        PartCheck("hoses", "Hoses", "bulged, rusty at the nut, kinked"),
        "replace the hoses",
        10.0,
        ("taps",),
    ),
    _mechanical(
        "drum_bearings",
        "Drum bearings",
        {Symptom.NOISY: 0.5, Symptom.LEAKS: 0.1, Symptom.HUMS: 0.25, Symptom.NO_TURN: 0.1},
        PartCheck("drum", "Drum, turned and lifted by hand", "rumbles, has play, is stiff or stuck"),
        "replace bearings and seal",
        180.0,
        # What comes through the seal drips onto the motor.
        brings=tuple(
            Brings(None, f"{kind}_motor", FaultMode.LEAK) for kind in ("brushed", "three_phase", "single_phase")
        ),
    ),
    _mechanical(
        "suspension",
        "Suspension",
        {Symptom.NOISY: 0.3, Symptom.NO_SPIN: 0.1},
        PartCheck("tub", "Tub, pressed down and let go", "swings on, hangs askew"),
        "replace dampers or springs",
        45.0,
    ),
    _mechanical(
        "heater_clip",
        "Heater clip",
        {Symptom.NOISY: 0.1, Symptom.TRIPS: 0.05},
        PartCheck("clip", "Heater in its clip", "beside the clip: the drum scrapes"),
        "seat the heater in its clip",
        30.0,
    ),
)
