"""The terms on which a machine is judged: its sheet, its protection class, and the limits that hold."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from ohmcensus.core.limits.profile import LimitProfile, is_heating
from ohmcensus.core.sheet import Sheet

OHM_PER_MEGOHM = 1e6
AMPERE_A_MILLIAMPERE = 1e-3
# What a standard asks after repair, EN 50678 and EN 50699, from memory: megohm, milliampere, watts.
CLASS_I_MEGOHM, HEATING_MEGOHM, CLASS_II_MEGOHM = 1.0, 0.3, 2.0
CONDUCTOR_MA, MA_PER_KW, HEATING_FROM_W, MOST_CONDUCTOR_MA, TOUCH_MA = 3.5, 1.0, 3500.0, 10.0, 0.5


@dataclass(frozen=True)
class Terms:
    """What a reading is held against.

    Parameters
    ----------
    sheet
        The machine's type.
    profile
        Limits that the firm has chosen.
    is_class_ii
        Whether the machine has no earth: the sheet says so, and its plate does not say otherwise.

    Notes
    -----
    The stricter of standard and profile holds, field by field; a profile that replaces the standard stands alone.
    A figure of the sheet's own only makes it stricter.
    """

    sheet: Sheet
    profile: LimitProfile
    is_class_ii: bool = False

    def __hash__(self) -> int:
        """Hash by what is cheap to hash; equality looks at all of it."""
        return hash((self.sheet, self.profile.id, self.is_class_ii))

    def least_ohm(self, part_id: str | None) -> float:
        """Return what a part must insulate at least, the whole machine where no part is named."""
        own = self._whole_megohm if part_id is None else self._part_megohm(part_id)
        return own * OHM_PER_MEGOHM

    @property
    def conductor_a(self) -> float:
        """The greatest protective conductor current, in amperes."""
        heating = sum(float(getattr(part.ratings, "watts", 0.0)) for part in self.sheet.parts if part.traits.is_heating)
        standard = CONDUCTOR_MA
        if heating > HEATING_FROM_W:
            standard = min(MOST_CONDUCTOR_MA, MA_PER_KW * heating / 1000)
        return self._at_most(standard, self.profile.conductor_ma) * AMPERE_A_MILLIAMPERE

    @property
    def touch_a(self) -> float:
        """The greatest touch current, in amperes."""
        return self._at_most(TOUCH_MA, self.profile.touch_ma) * AMPERE_A_MILLIAMPERE

    @property
    def whose(self) -> str:
        """Whose limits hold, and whether they stand in the place of the standard."""
        said = self.profile.title
        return f"{said}, in place of the standard" if self.profile.replaces_standard else said

    @property
    def basis(self) -> str:
        """Whose limits hold, and where the figures are from."""
        return f"{self.whose}: {self.profile.basis}" if self.profile.basis else self.whose

    @cached_property
    def has_heating(self) -> bool:
        """Whether the machine has a heating element."""
        return any(part.traits.is_heating for part in self.sheet.parts)

    @cached_property
    def _whole_megohm(self) -> float:
        if self.is_class_ii:
            return self._at_least(CLASS_II_MEGOHM, self.profile.class_ii_megohm)
        if self.has_heating:
            return self._at_least(HEATING_MEGOHM, self.profile.heating_megohm)
        return self._at_least(CLASS_I_MEGOHM, self.profile.class_i_megohm)

    def _part_megohm(self, part_id: str) -> float:
        part = self.sheet.part(part_id)
        kind = part.kind if part else ""
        standard = CLASS_II_MEGOHM if self.is_class_ii else HEATING_MEGOHM if is_heating(kind) else CLASS_I_MEGOHM
        return self._at_least(standard, self.profile.least_megohm(kind, "II" if self.is_class_ii else "I"))

    def _at_least(self, standard: float, chosen: float) -> float:
        return chosen if self.profile.replaces_standard else max(standard, chosen)

    def _at_most(self, standard: float, chosen: float | None) -> float:
        if chosen is None:
            return standard
        return chosen if self.profile.replaces_standard else min(standard, chosen)


def loosened(profile: LimitProfile) -> tuple[str, ...]:
    """Return the fields in which a profile asks less than the standard, in words; empty for one that only tightens."""
    return tuple(_loosened(profile))


def _loosened(profile: LimitProfile) -> Iterator[str]:
    for words, standard, chosen in (
        ("insulation, class I", CLASS_I_MEGOHM, profile.class_i_megohm),
        ("insulation with a heating element", HEATING_MEGOHM, profile.heating_megohm),
        ("insulation, class II", CLASS_II_MEGOHM, profile.class_ii_megohm),
        *(
            (f"insulation of {kind.replace('_', ' ')}", _standard(kind), own)
            for kind, own in profile.kinds_megohm.items()
        ),
    ):
        if chosen < standard:
            yield words
    for words, most, own in (
        ("protective conductor current", CONDUCTOR_MA, profile.conductor_ma),
        ("touch current", TOUCH_MA, profile.touch_ma),
        ("protective conductor", SHORTEST_CORD_OHM, profile.earth_ohm),
    ):
        if own is not None and own > most:
            yield words


# Protective conductor of a cord up to 5 m, EN 50678, from memory.
SHORTEST_CORD_OHM = 0.3


def _standard(kind: str) -> float:
    return HEATING_MEGOHM if is_heating(kind) else CLASS_I_MEGOHM
