"""What breaks, how often, how badly, and what the customer says of it."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

# The mix of a thousand jobs: what kind of thing is wrong.
MIX: Mapping[str, float] = {
    "electrical": 0.64,
    "mechanical part": 0.14,
    "mechanical fault": 0.07,
    "stray symptom": 0.08,
    "sound": 0.03,
    "dead outlet": 0.02,
    "wrong sheet": 0.02,
}
# How often kinds of parts break electrically, against one another; a kind that is not named counts one.
OFTEN: Mapping[str, float] = {
    "heater": 9,
    "steam_heater": 5,
    "dryer_heater": 5,
    "brushed_motor": 9,
    "three_phase_motor": 4,
    "single_phase_motor": 6,
    "motor_capacitor": 6,
    "drain_pump": 9,
    "circulation_pump": 4,
    "inlet_valve": 6,
    "door_lock": 9,
    "lock_solenoid": 7,
    "lid_lock": 7,
    "lid_switch": 7,
    "control_board": 8,
    "motor_control_board": 6,
    "interface_board": 3,
    "cam_timer": 7,
    "ntc": 5,
    "pressure_switch": 4,
    "level_sensor": 4,
    "harness": 6,
    "mains_filter": 3,
    "cord": 3,
    "plug_fuse": 2,
    "thermal_cutout": 4,
    "shift_actuator": 5,
    "rotor_position_sensor": 4,
}
# What of a load, a contact, a wire and so on gives way, against one another.
WAYS: Mapping[str, Mapping[str, float]] = {
    "load": {"open": 5, "joint": 2, "shorted turns": 2, "short": 1, "leak": 3, "drift": 1},
    "element": {"open": 5, "joint": 2, "leak": 5, "short": 0.5, "drift": 1},
    "sensor": {"open": 3, "joint": 2, "short": 1, "drift": 4},
    "contact": {"stuck open": 5, "welded": 3, "joint": 3},
    "wire": {"open": 4, "joint": 4, "leak": 2},
    "capacitor": {"faded": 5, "open": 2, "short": 1},
    "junction": {"short": 4, "open": 2},
    "insulation": {"short": 1},
    "resistor": {"open": 3, "drift": 1},
}
# Mechanical faults of electrical parts: part kind, the look that shows it, how often, what is told of it.
MECHANICAL: Sequence[tuple[str, str, float, str]] = (
    ("drain_pump", "impeller", 5, "no_drain"),
    ("inlet_valve", "sieve", 4, "no_water"),
    ("pressure_switch", "tube", 3, "no_turn"),
    ("level_sensor", "tube", 3, "stops"),
    ("door_lock", "latch", 3, "no_lock"),
    ("lock_solenoid", "latch", 3, "no_lock"),
    ("brushed_motor", "commutator", 2, "hums"),
    ("cam_timer", "knob", 2, "stops"),
)
# What a mechanical part is told by.
OF_MECHANICAL: Mapping[str, Sequence[str]] = {
    "drain_filter": ("no_drain", "no_drain", "no_spin"),
    "drive_belt": ("no_turn", "noisy"),
    "door_strike": ("no_lock", "no_start"),
    "door_handle": ("no_open", "no_lock"),
    "fill_hoses": ("leaks", "no_water"),
    "drum_bearings": ("noisy", "leaks"),
    "suspension": ("noisy", "no_spin"),
    "heater_clip": ("noisy", "smells"),
}
# What is told where a load is not fed or does nothing, by the kind that does the work.
IDLE: Mapping[str, Sequence[str]] = {
    "heater": ("no_heat", "no_heat", "no_heat", "code"),
    "steam_heater": ("no_heat", "code"),
    "dryer_heater": ("no_heat", "code"),
    "brushed_motor": ("no_turn", "no_turn", "no_spin", "hums", "code"),
    "three_phase_motor": ("no_turn", "hums", "no_spin", "code"),
    "single_phase_motor": ("no_turn", "hums", "no_spin"),
    "motor_capacitor": ("hums", "no_turn", "no_spin"),
    "drain_pump": ("no_drain", "no_drain", "no_spin", "code"),
    "circulation_pump": ("no_heat", "code", "stops"),
    "inlet_valve": ("no_water", "no_water", "stops", "code"),
    "door_lock": ("no_start", "no_lock", "no_lock"),
    "lock_solenoid": ("no_lock", "no_start"),
    "lid_lock": ("no_lock", "no_spin"),
    "lid_switch": ("no_spin", "no_start"),
    "control_board": ("dead", "no_start", "stops"),
    "motor_control_board": ("no_turn", "no_turn", "dead", "code"),
    "interface_board": ("no_start", "dead", "code"),
    "cam_timer": ("dead", "no_start", "stops"),
    "ntc": ("code", "no_heat", "overheats"),
    "pressure_switch": ("no_turn", "no_heat", "stops"),
    "level_sensor": ("code", "stops", "no_turn"),
    "mains_filter": ("dead", "dead", "stops"),
    "cord": ("dead", "dead", "stops"),
    "plug_fuse": ("dead",),
    "thermal_cutout": ("no_heat", "no_heat", "dead"),
    "shift_actuator": ("no_spin", "no_turn", "noisy"),
    "rotor_position_sensor": ("no_turn", "hums", "code"),
    "outlet": ("dead",),
}
TRIPS = ("trips", "trips", "trips", "shock", "dead")
BURNT = ("smells", "trips")
RUNS_ON: Mapping[str, Sequence[str]] = {
    "heater": ("overheats",),
    "inlet_valve": ("overfills",),
    "drain_pump": ("noisy", "stops"),
    "brushed_motor": ("no_open", "noisy"),
}
ANY = (
    *("dead", "no_start", "hums", "no_turn", "no_spin", "no_drain", "no_heat", "overheats", "no_lock"),
    *("no_open", "stops", "trips", "code", "noisy", "leaks", "smells"),
)


@dataclass(frozen=True, slots=True)
class Break:
    """What is wrong on one job.

    Parameters
    ----------
    group
        Of the mix.
    part
        What would be repaired; empty where the machine is sound or only the sheet is wrong.
    element, way, amount
        Which branches give way, how, and how badly: ohms, or a factor.
    look
        The check by eye or hand that shows it; empty for none.
    told
        What the customer says.
    """

    group: str
    part: str
    element: str = ""
    way: str = ""
    amount: float = 0.0
    look: str = ""
    told: str = ""


# Half of what drifts drifts down.
DRIFTS_DOWN = 0.5


def between(chance: np.random.Generator, least: float, most: float) -> float:
    """Return a value drawn evenly over the logarithm."""
    return float(math.exp(chance.uniform(math.log(least), math.log(most))))


def severity(chance: np.random.Generator, way: str, ohm: float) -> float:
    """Return how bad a way of breaking is, evenly over the logarithm of the whole gap.

    Parameters
    ----------
    chance
        Where chance comes from.
    way
        Of ``WAYS``.
    ohm
        What the sound element has, for a short that must lie under it.
    """
    whole_gap = {
        "joint": (0.3, 2e6),
        "open": (2e6, 1e12),
        "stuck open": (2e6, 1e12),
        "short": (0.02, max(0.05, min(0.5 * ohm, 100.0))),
        "shorted turns": (0.03, 0.7),
        "leak": (1.0, 15e6),
        "drift": (1.12, 4.0),
        "faded": (0.02, 0.9),
        "welded": (0.01, 0.3),
    }
    amount = between(chance, *whole_gap[way])
    return 1 / amount if way == "drift" and chance.random() < DRIFTS_DOWN else amount
