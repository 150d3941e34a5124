"""Settings: who works here, how warm it is, and which meters are in the bag."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, ValidationError
from sqlmodel import Session

from ohmcensus.core.errors import InputError, StaleRevisionError
from ohmcensus.core.firm import Firm
from ohmcensus.core.limits.profile import BUILT_IN, LimitProfile, chosen_profile
from ohmcensus.core.limits.texts import Confirmation, all_texts
from ohmcensus.core.text.trimmed import Trimmed
from ohmcensus.exchange.frame_body import FrameBody
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.settings import Settings, known_meters, mark_in, mark_name, settings_in
from ohmcensus.services.at_hand.sheets import sheets_in
from ohmcensus.storage import frames, settings


class KeptSettings(Settings):
    """The settings with the revision of the setup that they are of, and what names the firm's mark, empty for none."""

    revision: int = Field(default=0, ge=0)
    mark: str = ""


class ChangedSettings(BaseModel):
    """Some settings as they are to be; what is not named stays as it is, and null is no setting.

    Attributes
    ----------
    revision
        Of the setup, as the writer had seen it.
    """

    model_config = ConfigDict(extra="forbid", strict=True)

    revision: int = Field(ge=0, le=2**53)
    technician: Annotated[str, Trimmed(80)] | None = None
    ambient_celsius: float | None = None
    bag: list[str] | None = None
    profile: str | None = None
    own_profiles: list[LimitProfile] | None = None
    confirmations: list[Confirmation] | None = None
    firm: Firm | None = None
    hour_price: float | None = None
    call_out_price: float | None = None
    live_penalty: float | None = None


def show_settings(context: Context) -> KeptSettings:
    """Return the settings."""
    with context.store.read() as session:
        return _kept(session)


def _kept(session: Session) -> KeptSettings:
    kept = settings_in(session).model_dump()
    return KeptSettings(**kept, revision=settings.revision(session), mark=mark_name(mark_in(session)))


def change_settings(context: Context, wanted: ChangedSettings) -> KeptSettings:
    """Change the settings that are named, and no other.

    Raises
    ------
    StaleRevisionError
        If somebody else changed one of those meanwhile; both values are told.
    InputError
        If the bag names a meter that does not exist, the limits are none that are known, or a figure is out of range.
    """
    named = wanted.model_dump(exclude={"revision"}, exclude_unset=True)
    with context.store.write() as session:
        before = settings_in(session)
        after = _checked({**before.model_dump(), **named})
        _refuse_unknown(session, after)
        _refuse_other_figures(before, after)
        revisions = settings.revisions(session)
        for name in named:
            theirs, ours = getattr(before, name), getattr(after, name)
            if theirs != ours and revisions.get(name, 0) > wanted.revision:
                raise StaleRevisionError(
                    stated=wanted.revision,
                    current=settings.revision(session),
                    thing="setup",
                    field=name,
                    both=f"{_TITLES[name]} is {_said(theirs)} since another window changed it; you typed {_said(ours)}",
                )
        for name in named:
            if getattr(before, name) != getattr(after, name):
                settings.keep(session, name, after.model_dump()[name])
        if (before.profile, before.own_profiles) != (after.profile, after.own_profiles):
            _frame_jobs(session, after)
        return _kept(session)


_TITLES = {
    "technician": "the technician",
    "ambient_celsius": "the temperature",
    "bag": "the bag",
    "profile": "the limits",
    "own_profiles": "your own limits",
    "confirmations": "who confirmed the figures",
    "firm": "the firm",
    "hour_price": "the price of an hour",
    "call_out_price": "the price of a visit",
    "live_penalty": "the minutes on top of a live test",
}


def _said(value: object) -> str:
    """Return a setting in print."""
    if isinstance(value, list):
        return ", ".join(map(_said_row, value)) or "none"
    if isinstance(value, Firm):
        return f"'{value.name}'"
    return f"'{value}'" if isinstance(value, str) else f"{value:g}" if isinstance(value, float) else str(value)


def _said_row(row: object) -> str:
    if isinstance(row, LimitProfile):
        return row.title
    return f"{row.text} by {row.by}" if isinstance(row, Confirmation) else str(row)


def _checked(values: dict[str, object]) -> Settings:
    """Return settings that hold their ranges; refuse the first that does not."""
    try:
        return Settings.model_validate(values)
    except ValidationError as error:
        row = error.errors(include_url=False)[0]
        field = ".".join(map(str, row["loc"]))
        raise InputError(what=f"{field}: {row['msg'].lower()}", remedy="type another", field=field) from None


def _refuse_unknown(session: Session, wanted: Settings) -> None:
    """Refuse limits and meters that are not known."""
    profiles = {row.id for row in (*wanted.own_profiles, *BUILT_IN)}
    if wanted.profile and wanted.profile not in profiles:
        what = f"no limits '{wanted.profile}'"
        raise InputError(what=what, remedy=f"known are {', '.join(sorted(profiles))}", field="profile")
    known = {meter.id for meter in known_meters(session)}
    for meter_id in wanted.bag:
        if meter_id not in known:
            what = f"no meter '{meter_id[:40]}' to put into the bag"
            raise InputError(what=what, remedy=f"known are {', '.join(sorted(known))}", field="bag")


def _refuse_other_figures(before: Settings, wanted: Settings) -> None:
    """Refuse a new confirmation of figures that are not those of now: whoever reads a text reads them against these."""
    texts = {row.id: row for row in all_texts(wanted.own_profiles)}
    for row in wanted.confirmations:
        if row in before.confirmations:
            continue
        now = texts.get(row.text)
        if now is None:
            what = f"no limits and no text '{row.text}'"
            raise InputError(what=what, remedy=f"known are {', '.join(texts)}", field="confirmations")
        if now.figures != row.figures:
            what = f"the figures of {now.title} are others now: {now.figures}"
            raise InputError(what=what, remedy="read these against the text", field="confirmations")


def keep_settings(context: Context, wanted: Settings) -> KeptSettings:
    """Keep all settings as they are given, whoever wrote them before: the demo's and a story's own; see above."""
    told = {name: getattr(wanted, name) for name in Settings.model_fields}
    return change_settings(context, ChangedSettings(revision=show_settings(context).revision, **told))


def _frame_jobs(session: Session, wanted: Settings) -> None:
    """Write down on every job that other limits hold from here on: those of before are never forgotten."""
    volts = {sheet_id: sheet.volts for sheet_id, sheet in sheets_in(session).items()}
    for job_id, (revision, text) in frames.newest(session).items():
        body = FrameBody.model_validate_json(text)
        profile = chosen_profile(wanted.profile, tuple(wanted.own_profiles), volts.get(body.sheet, 230.0))
        if profile != body.profile:
            came = body.model_copy(update={"profile": profile, "is_arrival": False})
            frames.append(session, job_id, revision + 1, came.model_dump_json(exclude_defaults=True))
