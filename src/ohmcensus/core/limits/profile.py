"""Limits of a leak by protection class and part, in profiles that a firm may change.

Which of them were read against their text, and by whom, is kept in `texts`.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StrictBool, StringConstraints

from ohmcensus.core.parts import part_kinds
from ohmcensus.core.physics.supply import LOW_VOLTS
from ohmcensus.core.text.trimmed import Trimmed

Megohm = Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False, strict=True)]
Milliampere = Annotated[float, Field(gt=0, le=100, allow_inf_nan=False, strict=True)]
Ohm = Annotated[float, Field(gt=0, le=10, allow_inf_nan=False, strict=True)]


def is_heating(kind: str) -> bool:
    """Tell whether a kind of part is a heating element; a kind that is not known is none."""
    known = part_kinds().get(kind)
    return known is not None and known.traits.is_heating


class LimitProfile(BaseModel):
    """What a part must insulate at least, and may leak at most.

    Attributes
    ----------
    id, title, basis
        Name in files, name in print, and where the figures are from.
    class_i_megohm, heating_megohm, class_ii_megohm
        Insulation of a class I part, of one with a heating element, and of anything in a class II machine.
    part_ma
        Leakage of one part.
    kinds_megohm
        Insulation by kind of part, where it differs.
    earth_ohm, is_cord_added
        Protective conductor at most, and whether the copper of the cord comes on top; None for the cord's own
        limit by its length.
    conductor_ma, touch_ma
        Protective conductor current at most, None for the limit by the heating power; touch current at most.
    replaces_standard
        Whether it stands in the place of the standard, and so may ask less; else the stricter of the two holds.
    is_held_on_gfci
        Whether one full run held on a GFCI takes the place of the protective conductor current.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,29}$")]
    title: Annotated[str, Trimmed(80, 1)]
    basis: Annotated[str, Trimmed(200)] = ""
    class_i_megohm: Megohm = 1.0
    heating_megohm: Megohm = 0.3
    class_ii_megohm: Megohm = 2.0
    part_ma: Milliampere = 0.75
    kinds_megohm: dict[str, Megohm] = Field(default_factory=dict, max_length=60)
    earth_ohm: Ohm | None = None
    is_cord_added: StrictBool = False
    conductor_ma: Milliampere | None = None
    touch_ma: Milliampere = 0.5
    replaces_standard: StrictBool = False
    is_held_on_gfci: StrictBool = False

    def least_megohm(self, kind: str, protection_class: str) -> float:
        """Return what a part of a kind must insulate at least, in a machine of a protection class."""
        if kind in self.kinds_megohm:
            return self.kinds_megohm[kind]
        if protection_class == "II":
            return self.class_ii_megohm
        return self.heating_megohm if is_heating(kind) else self.class_i_megohm


# A part over 0.75 mA is not healthy: whole healthy machines read 0.1 to 0.7 mA (common practice, no source).
BUILT_IN = (
    LimitProfile(
        id="after_repair",
        title="After repair, 230 V",
        basis="EN 50678 and EN 50699; 0.75 mA for one part is common practice",
    ),
    LimitProfile(
        id="stricter",
        title="Stricter house rules",
        basis="a firm's own: 1 MΩ whatever the part, 0.5 mA, earth 0.1 Ω and the cord; no source",
        heating_megohm=1.0,
        part_ma=0.5,
        earth_ohm=0.1,
        is_cord_added=True,
    ),
    LimitProfile(
        id="one_megohm_five_ma",
        title="1 Ω, 1 MΩ, 5 mA",
        basis="as used in some countries in the place of EN 50678",
        replaces_standard=True,
        heating_megohm=1.0,
        class_ii_megohm=1.0,
        part_ma=5.0,
        earth_ohm=1.0,
        conductor_ma=5.0,
    ),
    LimitProfile(
        id="practice_120",
        title="120 V practice",
        basis="no mandatory test; 500 V at least 1 MΩ and 0.75 mA, common practice",
        replaces_standard=True,
        heating_megohm=1.0,
        class_ii_megohm=1.0,
        conductor_ma=0.75,
        is_held_on_gfci=True,
    ),
)


def usual_profile(volts: float) -> LimitProfile:
    """Return the profile that is usual at a supply."""
    return BUILT_IN[3] if volts < LOW_VOLTS else BUILT_IN[0]


def chosen_profile(wanted: str, own: tuple[LimitProfile, ...], volts: float) -> LimitProfile:
    """Return a profile by its id, one's own before a built-in; the usual one where none is wanted or known."""
    return next((row for row in (*own, *BUILT_IN) if row.id == wanted), usual_profile(volts))
