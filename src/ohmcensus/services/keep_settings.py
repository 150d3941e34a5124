"""Settings: who works here, how warm it is, and which meters are in the bag."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints
from sqlmodel import Session

from ohmcensus.core.errors import InputError
from ohmcensus.core.limits import BUILT_IN, LimitProfile, chosen_profile
from ohmcensus.core.machine.asked import LIVE_PENALTY_MINUTES
from ohmcensus.core.meter import GENERIC_METERS, Meter
from ohmcensus.core.trimmed import Trimmed
from ohmcensus.exchange.frame_body import FrameBody
from ohmcensus.services.context import Context
from ohmcensus.services.find_sheet import sheets_in
from ohmcensus.storage import frames, meters, settings


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
    hour_price, call_out_price
        What an hour of work and a visit cost, in the currency of the firm.
    live_penalty
        Minutes that a live test behind a cover counts on top when the next question is chosen.
    """

    model_config = ConfigDict(extra="forbid", strict=True)

    technician: Annotated[str, Trimmed(80)] = ""
    ambient_celsius: float = Field(default=20.0, ge=-30, le=60, allow_inf_nan=False)
    bag: list[str] = Field(default=["multimeter-6000", "appliance-tester"], min_length=1, max_length=50)
    profile: Annotated[str, StringConstraints(max_length=30)] = ""
    own_profiles: list[LimitProfile] = Field(default=[], max_length=10)
    hour_price: float = Field(default=60.0, ge=0, le=1e4, allow_inf_nan=False)
    call_out_price: float = Field(default=35.0, ge=0, le=1e4, allow_inf_nan=False)
    live_penalty: float = Field(default=LIVE_PENALTY_MINUTES, ge=0, le=120, allow_inf_nan=False)


def settings_in(session: Session) -> Settings:
    """Return the settings of a store, defaults where none were kept."""
    return Settings.model_validate(settings.all_named(session))


def show_settings(context: Context) -> Settings:
    """Return the settings."""
    with context.store.read() as session:
        return settings_in(session)


def keep_settings(context: Context, wanted: Settings) -> Settings:
    """Keep the settings.

    Raises
    ------
    InputError
        If the bag names a meter that does not exist, or the limits are none that are known.
    """
    profiles = {row.id for row in (*wanted.own_profiles, *BUILT_IN)}
    if wanted.profile and wanted.profile not in profiles:
        what = f"no limits '{wanted.profile}'"
        raise InputError(what=what, remedy=f"known are {', '.join(sorted(profiles))}", field="profile")
    with context.store.write() as session:
        known = {meter.id for meter in known_meters(session)}
        for meter_id in wanted.bag:
            if meter_id not in known:
                what = f"no meter '{meter_id[:40]}' to put into the bag"
                raise InputError(what=what, remedy=f"known are {', '.join(sorted(known))}", field="bag")
        before = settings_in(session)
        for name, value in wanted.model_dump().items():
            settings.keep(session, name, value)
        if (before.profile, before.own_profiles) != (wanted.profile, wanted.own_profiles):
            _frame_jobs(session, wanted)
    return wanted


def _frame_jobs(session: Session, wanted: Settings) -> None:
    """Write down on every job that other limits hold from here on: those of before are never forgotten."""
    volts = {sheet_id: sheet.volts for sheet_id, sheet in sheets_in(session).items()}
    for job_id, (revision, text) in frames.newest(session).items():
        body = FrameBody.model_validate_json(text)
        profile = chosen_profile(wanted.profile, tuple(wanted.own_profiles), volts.get(body.sheet, 230.0))
        if profile != body.profile:
            came = body.model_copy(update={"profile": profile, "is_arrival": False})
            frames.append(session, job_id, revision + 1, came.model_dump_json(exclude_defaults=True))


def known_meters(session: Session) -> list[Meter]:
    """Return every meter: one's own, then the generic ones."""
    return [*meters.all_own(session), *GENERIC_METERS]
