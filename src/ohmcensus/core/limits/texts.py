"""The texts that built-in figures are taken from, and who has read the figures against them.

None of the texts was at hand when the figures were written down: each figure is from memory until somebody confirms it.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import date
from typing import Annotated, NamedTuple

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints

from ohmcensus.core.limits.profile import BUILT_IN, LimitProfile
from ohmcensus.core.physics.cable import CLASS_5_OHM_PER_M, GAUGE_OHM_PER_M
from ohmcensus.core.physics.supply import SUPPLY_TOLERANCE
from ohmcensus.core.text.trimmed import Trimmed


class Text(NamedTuple):
    """A text, or a profile of limits, and the figures that are taken from it, as one sentence."""

    id: str
    title: str
    figures: str


def _a_day(said: str) -> str:
    date.fromisoformat(said)
    return said


class Confirmation(BaseModel):
    """That somebody has read figures against the text that they are taken from.

    Attributes
    ----------
    text
        Id of the text, or of the profile of limits.
    figures
        What was confirmed, in words; other figures than those that hold now confirm nothing.
    edition
        What it was read against: the text and its edition.
    by, on
        Who, and the day (ISO 8601).
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    text: Annotated[str, StringConstraints(max_length=40)]
    figures: Annotated[str, StringConstraints(max_length=2000)]
    edition: Annotated[str, Trimmed(120, 1)]
    by: Annotated[str, Trimmed(80, 1)]
    on: Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$"), AfterValidator(_a_day)]


def _cores(ohm_per_m: Mapping[float, float]) -> str:
    rows = (f"{1000 * ohm:.3g} Ω/km at {area:g} mm²" for area, ohm in ohm_per_m.items())
    return f"copper cores at 20 °C: {', '.join(rows)}"


# What the figures in core/physics, core/parts and core/safety are taken from, beside the limits of a profile.
_OTHER_TEXTS = (
    Text(
        "appliances",
        "IEC 60335-1",
        "heating power −10 % to +5 %; copper 234.5 °C; 34 V at the plug 1 s after unplugging",
    ),
    Text("supply", "IEC 60038", f"the rated voltage ±{SUPPLY_TOLERANCE:.0%}"),
    Text("cords", "IEC 60228, class 5", _cores(CLASS_5_OHM_PER_M)),
    Text("gauges", "American wire gauges", _cores(GAUGE_OHM_PER_M)),
    Text("capacitors", "IEC 60252-1 and -2", "motor capacitors ±5 % or ±10 %; for starting −10 % to +20 %"),
    Text(
        "rcd",
        "IEC 61008-1",
        "an RCD holds at half its rating and trips at it, within 0.3 s; within 0.04 s at five times",
    ),
    Text("gfci", "UL 943, class A", "a GFCI holds at 4 mA and trips at 6 mA, within (20/I)^1.43 s"),
    Text(
        "breakers",
        "IEC 60898-1, IEC 60269-2, BS 1362",
        "where breakers and fuses hold and trip, at once and within an hour",
    ),
    Text(
        "proving_dead",
        "EN 50110-1 and EN 61243-3",
        "the meter is proved before and after, on the voltage that it is to find",
    ),
)


def profile_figures(profile: LimitProfile) -> str:
    """Return every figure of a profile of limits in a sentence; two that ask the same say the same."""
    earth = "by the length of the cord" if profile.earth_ohm is None else f"{profile.earth_ohm:g} Ω"
    conductor = "by the heating power" if profile.conductor_ma is None else f"{profile.conductor_ma:g} mA"
    kinds = [f"{kind} {megohm:g} MΩ" for kind, megohm in sorted(profile.kinds_megohm.items())]
    said = [
        f"insulation {profile.class_i_megohm:g} MΩ in class I",
        f"{profile.heating_megohm:g} MΩ with a heating element",
        f"{profile.class_ii_megohm:g} MΩ in class II",
        *kinds,
        f"leakage of one part {profile.part_ma:g} mA",
        f"protective conductor {earth}" + (" and its copper" if profile.is_cord_added else ""),
        f"its current {conductor}",
        f"touch current {profile.touch_ma:g} mA",
    ]
    if profile.is_held_on_gfci:
        said.append("one run that holds on a GFCI counts for the currents")
    return ", ".join(said)


def all_texts(own: Iterable[LimitProfile]) -> tuple[Text, ...]:
    """Return every profile, one's own first, then the other texts."""
    profiles = [Text(row.id, row.title, profile_figures(row)) for row in (*own, *BUILT_IN)]
    return (*profiles, *_OTHER_TEXTS)


def standing(text: Text, confirmations: Iterable[Confirmation]) -> Confirmation | None:
    """Return the newest confirmation of the figures of a text as they are now, None where they are from memory."""
    fitting = [row for row in confirmations if (row.text, row.figures) == (text.id, text.figures)]
    return fitting[-1] if fitting else None
