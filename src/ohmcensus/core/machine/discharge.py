"""Emptying a capacitor: how long it takes by itself, and the resistor that does it now."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ohmcensus.core.parts.kind import StoredCharge
from ohmcensus.core.physics.capacitor import discharge_seconds, stored_energy_j

# What may be left: at the plug after 1 s 34 V (IEC 60335-1, from memory); for the hand 10 V (ours).
PLUG_SAFE_V = 34.0
HAND_SAFE_V = 10.0
# One resistor for every washer: 10 kΩ wirewound, and the ratings it is sold in (common practice).
RESISTOR_OHM = 10_000.0
_RATINGS_W = (2.0, 5.0, 10.0, 25.0, 50.0)
# A wirewound resistor stands twice its rating for the seconds of a discharge (common practice).
OVERLOAD = 2.0
SMALLEST_RATING_W = 10.0
SHORTEST_HOLD_S = 5.0
# Above this a charge can throw sparks and hurt; below it the bleed is waited for and the meter decides (ours).
DANGEROUS_J = 0.35
SAFE_WAIT_S = 300.0
# Probes are sold for these voltages (common practice, no source).
PROBE_RATINGS_V = (600.0, 1000.0)


@dataclass(frozen=True, slots=True)
class Discharge:
    """How one capacitor is emptied.

    Parameters
    ----------
    volts, energy_j
        What it may hold.
    wait_s
        Time to wait before measuring: five minutes for a dangerous charge, else until its own bleed
        has brought it to 10 V.
    bleeds_in_s
        Time in which its own bleed brings it to 10 V, None where there is none to rely on.
    resistor_ohm, resistor_w
        Resistor for what is left above 10 V.
    to_plug_safe_s, to_hand_safe_s
        Time through that resistor to 34 V and to 10 V.
    hold_s
        Time to hold it on, whole seconds.
    is_dangerous
        Whether the charge can hurt.
    probe_v
        What the probes must be rated for: the next usual rating over the highest voltage it may hold.
    """

    volts: float
    energy_j: float
    wait_s: float
    bleeds_in_s: float | None
    resistor_ohm: float
    resistor_w: float
    to_plug_safe_s: float
    to_hand_safe_s: float
    hold_s: float
    is_dangerous: bool
    probe_v: float


def discharge_of(charge: StoredCharge) -> Discharge:
    """Return how a capacitor is emptied, computed from its size, voltage and bleed."""
    farad, volts = charge.capacitance_f, charge.volts
    energy = stored_energy_j(farad, volts)
    is_dangerous = energy > DANGEROUS_J
    bleeds = None if charge.bleed_ohm is None else discharge_seconds(farad, charge.bleed_ohm, volts, HAND_SAFE_V)
    to_hand = discharge_seconds(farad, RESISTOR_OHM, volts, HAND_SAFE_V)
    crest_w = volts * volts / RESISTOR_OHM
    rating = next((w for w in _RATINGS_W if w >= max(SMALLEST_RATING_W, crest_w / OVERLOAD)), _RATINGS_W[-1])
    return Discharge(
        volts=volts,
        energy_j=energy,
        wait_s=SAFE_WAIT_S if is_dangerous else max(SHORTEST_HOLD_S, bleeds or 0.0),
        bleeds_in_s=bleeds,
        resistor_ohm=RESISTOR_OHM,
        resistor_w=rating,
        to_plug_safe_s=discharge_seconds(farad, RESISTOR_OHM, volts, PLUG_SAFE_V),
        to_hand_safe_s=to_hand,
        hold_s=max(SHORTEST_HOLD_S, float(math.ceil(to_hand))),
        is_dangerous=is_dangerous,
        probe_v=next((rated for rated in PROBE_RATINGS_V if rated >= volts), PROBE_RATINGS_V[-1]),
    )
