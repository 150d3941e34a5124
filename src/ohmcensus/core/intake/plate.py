"""The data plate, and whether its figures can be true of one another and of the sheet."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import InputError
from ohmcensus.core.physics.ohm_and_power import load_from
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.sheet import Sheet
from ohmcensus.core.text.trimmed import Trimmed

Text = Annotated[str, Trimmed(80)]
Figure = Annotated[float, Field(allow_inf_nan=False, strict=True)]

# What a household appliance may say of itself (our bounds, wide on purpose): volts, hertz, watts.
_BOUNDS: dict[str, tuple[float, float, str, str]] = {
    "volts": (90.0, 440.0, "V", "100 to 127, 200 to 240, or 400"),
    "hertz": (45.0, 65.0, "Hz", "50 or 60"),
    "watts": (50.0, 12_000.0, "W", "50 to 12000"),
}
_WORLDS = ((100.0, 127.0), (200.0, 250.0), (380.0, 415.0))
# Most that motor, pump and board of a washer take beside its heaters, in watts (common practice).
MOST_BESIDE_HEATERS_W = 1500.0
# Most that a plug and its circuit carry, in amperes: 16 A at 230 V, 20 A at 120 V (common practice).
_PLUG_A = {230: 16.0, 120: 20.0}
_HALF_WAY_V = 160.0


class DataPlate(BaseModel):
    """What is printed on the machine's plate; a figure that cannot be read is None.

    Attributes
    ----------
    type_number, serial
        As printed: a part must match the type number exactly.
    variants
        Part variants seen, one a line, e.g. "pump: grey plug, two tags": kept for ordering.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    type_number: Text = ""
    serial: Text = ""
    volts: Figure | None = None
    hertz: Figure | None = None
    watts: Figure | None = None
    protection_class: Literal["I", "II", ""] = ""
    variants: Annotated[str, Trimmed(1000)] = ""

    def refuse_impossible(self) -> None:
        """Refuse figures that no household washer has.

        Raises
        ------
        InputError
            With the figure and what plates usually say.
        """
        for name, (lo, hi, unit, usual) in _BOUNDS.items():
            value = getattr(self, name)
            if value is not None and not lo <= value <= hi:
                what = f"{value:g} {unit} on the plate is not that of a household machine"
                raise InputError(what=what, remedy=f"read it again, usual are {usual}", field=f"plate.{name}")


def plate_of(sheet: Sheet) -> DataPlate:
    """Return the plate of a machine that is as the sheet of its type says."""
    return DataPlate(volts=sheet.volts, hertz=sheet.hertz, watts=sheet.watts, protection_class=sheet.protection_class)


def plate_remarks(plate: DataPlate, sheet: Sheet) -> tuple[str, ...]:
    """Return what does not fit together, one sentence each; nothing where all is plausible.

    Parameters
    ----------
    plate
        As read.
    sheet
        The sheet that was chosen for the machine.
    """
    return tuple(_remarks(plate, sheet))


def _remarks(plate: DataPlate, sheet: Sheet) -> Iterator[str]:
    if plate.volts is not None:
        if not any(lo <= plate.volts <= hi for lo, hi in _WORLDS):
            yield f"{plate.volts:g} V is the voltage of no usual supply: read the plate again."
        if abs(plate.volts - sheet.volts) > SUPPLY_TOLERANCE * sheet.volts:
            yield f"The plate says {plate.volts:g} V, sheet {sheet.id} is for {sheet.volts:g} V: choose another sheet."
    if plate.hertz is not None and abs(plate.hertz - sheet.hertz) > 1:
        yield f"The plate says {plate.hertz:g} Hz, sheet {sheet.id} is for {sheet.hertz:g} Hz."
    if plate.protection_class and plate.protection_class != sheet.protection_class:
        yield f"The plate says class {plate.protection_class}, sheet {sheet.id} is class {sheet.protection_class}."
    if plate.watts is not None:
        yield from _watts_remarks(plate.watts, plate.volts or sheet.volts, sheet)


def _watts_remarks(watts: float, volts: float, sheet: Sheet) -> Iterator[str]:
    """Compare the power with the heaters, and with what the plug carries."""
    heaters = [float(_rating(part.ratings, "watts")) for part in sheet.parts if part.traits.is_heating]
    largest, together = max(heaters, default=0.0), sum(heaters)
    if watts < largest:
        yield (
            f"{watts:g} W is less than the heater of {largest:g} W alone: "
            "one of the two is misread, or another heater was fitted."
        )
    if watts > together + MOST_BESIDE_HEATERS_W:
        beside = f"its heaters take {together:g} W" if heaters else "this sheet has no heater"
        yield f"{watts:g} W is a lot: {beside}, and the rest rarely takes {MOST_BESIDE_HEATERS_W:g} W."
    amps = load_from(volts=volts, watts=watts).amperes
    limit = _PLUG_A[120 if volts < _HALF_WAY_V else 230]
    if amps > limit:
        yield f"{watts:g} W at {volts:g} V draws {amps:.0f} A, more than the {limit:g} A that a plug carries."


def _rating(ratings: Any, name: str) -> float:
    return getattr(ratings, name, 0.0)
