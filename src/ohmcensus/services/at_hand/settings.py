"""Settings of a data directory, and every meter that is known: what a case is built with."""

from __future__ import annotations

import hashlib
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints
from sqlmodel import Session

from ohmcensus.core.firm import Firm
from ohmcensus.core.limits.profile import LimitProfile
from ohmcensus.core.limits.texts import Confirmation
from ohmcensus.core.machine.asked import LIVE_PENALTY_MINUTES
from ohmcensus.core.meter import GENERIC_METERS, Meter
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.storage import meters, settings


class Settings(BaseModel):
    """Settings of a data directory.

    Attributes
    ----------
    technician
        Name written on every reading.
    ambient_celsius
        Temperature of the parts where a line states none.
    bag
        Ids of the meters at hand, the preferred one first.
    profile, own_profiles
        Id of the limits that hold, empty for those usual at the supply; the firm's own.
    confirmations
        Who read which figures against the text that they are taken from.
    firm
        Whose name stands on what goes out, its currency, tax and time zone.
    hour_price, call_out_price
        What an hour of work and a visit cost before tax, in the currency of the firm.
    live_penalty
        Minutes that a live test behind a cover counts on top when the next question is chosen.
    """

    model_config = ConfigDict(extra="forbid", strict=True)

    technician: Annotated[str, Trimmed(80)] = ""
    ambient_celsius: float = Field(default=20.0, ge=-30, le=60, allow_inf_nan=False)
    bag: list[str] = Field(default=["multimeter-6000", "appliance-tester"], min_length=1, max_length=50)
    profile: Annotated[str, StringConstraints(max_length=30)] = ""
    own_profiles: list[LimitProfile] = Field(default=[], max_length=10)
    confirmations: list[Confirmation] = Field(default=[], max_length=200)
    firm: Firm = Firm()
    hour_price: float = Field(default=60.0, ge=0, le=1e4, allow_inf_nan=False)
    call_out_price: float = Field(default=35.0, ge=0, le=1e4, allow_inf_nan=False)
    live_penalty: float = Field(default=LIVE_PENALTY_MINUTES, ge=0, le=120, allow_inf_nan=False)


def settings_in(session: Session) -> Settings:
    """Return the settings of a store, defaults where none were kept."""
    return Settings.model_validate(settings.all_named(session))


MARK = "firm:mark"


def mark_in(session: Session) -> str:
    """Return the firm's mark as JPEG in base64, empty where there is none."""
    return settings.text(session, MARK)


def mark_name(mark: str) -> str:
    """Return what names a mark, empty for none: another one has another name."""
    return hashlib.sha256(mark.encode()).hexdigest()[:12] if mark else ""


def known_meters(session: Session) -> list[Meter]:
    """Return every meter: one's own, then the generic ones."""
    return [*meters.all_own(session), *GENERIC_METERS]
