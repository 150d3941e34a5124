"""The circuit of the house: what else leaks into the same device, and what the device cannot see."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass

from ohmcensus.core.event import CircuitNoted, StoodOn, Supply
from ohmcensus.core.job.case import Case
from ohmcensus.core.parts.kind import Waves
from ohmcensus.core.physics.residual import GFCI, ResidualDevice, TripChance, rcd, trip_chance, with_half_waves
from ohmcensus.core.physics.supply import LOW_VOLTS
from ohmcensus.core.quantity import Interval
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.symptom import Device

# A sound machine leaks this by its filter and its heater (common practice, no source).
HEALTHY_MACHINE_A = Interval(0.1e-3, 0.7e-3)
# Behind these a leak may be of half waves: a motor control fires, or rectifies, parts of the wave.


@dataclass(frozen=True)
class House:
    """The circuit with the machine on it.

    Parameters
    ----------
    noted
        As written down, the sheet's own protection where nothing was.
    device
        Its residual-current device, None where it has none.
    standing_a
        What the rest leaks: currents of the first quadrant add to no more than their sum and no less than the root
        of the sum of their squares.
    chance
        Of a trip with the machine as it is, None without a device or an earthed neutral.
    machine_a
        What the machine leaks as far as it is proved; that of a sound one where no run says.
    is_machine_proved
        Whether runs say so.
    blind_to
        What the device does not answer to.
    """

    noted: CircuitNoted
    device: ResidualDevice | None
    standing_a: Interval
    chance: TripChance | None
    machine_a: Interval
    is_machine_proved: bool
    blind_to: tuple[str, ...]


def circuit_of(case: Case) -> CircuitNoted:
    """Return the circuit as last written down; else what the sheet says of its protection."""
    noted = [event.body for event in case.of(CircuitNoted)]
    if noted:
        return noted[-1]
    return circuit_on(case.sheet)


# What is printed on a device: "30 mA type A", "B16", "15 A", "gG 16", "plug 13".
_RESIDUAL = re.compile(r"(?P<ma>10|30|100|300)\s*mA(?:\s*type\s*(?P<wave>AC|A|F|B))?\b")
_OVERCURRENT = re.compile(r"(?P<curve>B|C|D|gG|plug|)\s*(?P<a>\d{1,3})(?:\s*A)?")


def circuit_on(sheet: Sheet) -> CircuitNoted:
    """Return the circuit as a sheet states it; what it does not say, or says in words of its own, as is usual."""
    usual = CircuitNoted() if sheet.volts >= LOW_VOLTS else CircuitNoted(device=Device.BREAKER, curve="", rated_a=15)
    said: dict[str, object] = {}
    for row in sheet.protection:
        residual, overcurrent = _RESIDUAL.fullmatch(row.rating), _OVERCURRENT.fullmatch(row.rating)
        if row.device is Device.GFCI:
            said |= {"device": row.device}
        elif residual and row.device in {Device.RCD, Device.RCBO}:
            said |= {"device": row.device, "rated_ma": int(residual["ma"]), "wave": residual["wave"] or usual.wave}
        elif overcurrent and row.device in {Device.BREAKER, Device.FUSE, Device.RCBO, Device.AFCI}:
            said |= {"curve": overcurrent["curve"], "rated_a": int(overcurrent["a"])}
    return usual.model_copy(update=said)


def house_of(case: Case, machine_a: Interval | None) -> House:
    """Return the circuit of a case.

    Parameters
    ----------
    case
        Sheet and everything observed.
    machine_a
        Protective conductor current of the machine in amperes, as far as it is proved; None where no run says.
    """
    noted = circuit_of(case)
    device = device_of(noted)
    standing = _standing(noted)
    leak = HEALTHY_MACHINE_A if machine_a is None else machine_a
    chance = None if device is None or not noted.supply.is_neutral_earthed else _chance(device, leak, standing)
    return House(
        noted, device, standing, chance, leak, machine_a is not None, tuple(_blind_to(case, noted, has=device))
    )


def device_of(noted: CircuitNoted) -> ResidualDevice | None:
    """Return the residual-current device of a circuit, None where it senses no residual current."""
    if noted.device is Device.GFCI:
        return GFCI
    return rcd(noted.rated_ma / 1000) if noted.device in {Device.RCD, Device.RCBO} else None


def stood_on(case: Case) -> StoodOn | None:
    """Return the device as it stands now, for a run that trips it or does not.

    None where it senses no leak, and where nobody wrote down what else leaks into it: a trip would then be laid to
    the machine alone.
    """
    noted = circuit_of(case)
    device = device_of(noted)
    is_noted = bool(case.of(CircuitNoted))
    if device is None or not is_noted or not noted.supply.is_neutral_earthed:
        return None
    if device is not GFCI and noted.wave != "AC" and _makes(case, Waves.CHOPPED, Waves.INVERTED):
        device = with_half_waves(device)
    return StoodOn(
        title=device.title,
        must_hold_a=device.must_hold_a,
        must_trip_a=device.must_trip_a,
        standing_a=_standing(noted).hi,
    )


def proved_by_device(stood: StoodOn, *, tripped: bool) -> Interval:
    """Return what the machine leaks in amperes, by what its device did.

    A trip proves a total of at least what the device must hold: at least that less what the rest leaks. A hold
    proves a total under what must trip it; in the first quadrant the machine alone is under it too.
    """
    if tripped:
        return Interval(max(0.0, stood.must_hold_a - stood.standing_a))
    return Interval(0.0, stood.must_trip_a)


def _standing(noted: CircuitNoted) -> Interval:
    each = [row.leakage_ma / 1000 for row in noted.appliances]
    return Interval(math.hypot(*each), max(sum(each), math.hypot(*each)))


def _chance(device: ResidualDevice, machine: Interval, standing: Interval) -> TripChance:
    least = trip_chance(device, machine, standing.lo)
    most = trip_chance(device, machine, standing.hi)
    return TripChance(
        Interval(least.total_a.lo, most.total_a.hi), Interval(least.chance.lo, most.chance.hi), most.share
    )


def _blind_to(case: Case, noted: CircuitNoted, *, has: ResidualDevice | None) -> Iterator[str]:
    """Yield what this device, on this supply, with this machine, does not see."""
    if has is None:
        yield "No residual-current device: a leak trips nothing until it is as good as a short."
    if noted.supply in {Supply.ISOLATED, Supply.GENERATOR}:
        yield "Neither pole is earthed: the first leak to earth trips nothing, whatever the device."
    if noted.supply is Supply.TWO_LIVE_POLES:
        yield "Leaks of the two poles can cancel: measure each pole by itself."
    if noted.supply is Supply.GALVANIC_ISOLATOR:
        yield "The galvanic isolator drops about 1.2 V: earth readings at low current come out high."
    if has is not None and has is not GFCI and noted.wave == "AC":
        yield "Type AC answers to full waves only: half waves of a motor control and smooth DC pass unseen."
    if has is not None and noted.wave in {"AC", "A", "F"} and _makes(case, Waves.INVERTED):
        yield "This machine has an inverter: smooth DC over 6 mA blinds types AC and A to everything else."
    if has is not None:
        yield "The test button proves the mechanism only, not the threshold."


def _makes(case: Case, *waves: Waves) -> bool:
    """Tell whether a part of the machine makes one of some waves."""
    return any(part.traits.waves in waves for part in case.sheet.parts)
