"""Setup: settings and meters."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.core.errors import InputError
from ohmcensus.core.limits.profile import BUILT_IN, LimitProfile
from ohmcensus.core.limits.terms import loosened
from ohmcensus.core.limits.texts import Confirmation, all_texts, standing
from ohmcensus.core.meter import Meter
from ohmcensus.services.setup.change_settings import ChangedSettings, KeptSettings, change_settings, show_settings
from ohmcensus.services.setup.keep_meter import (
    GENERIC_IDS,
    NewMeter,
    keep_meter,
    meter_revisions,
    remove_meter,
    show_meters,
)
from ohmcensus.services.sheet.list_kinds import leaking_kinds
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("setup", __name__, url_prefix="/api")


class MeterPath(BaseModel):
    """Which meter."""

    meter_id: str


class MeterList(BaseModel):
    """Every meter, one's own first; the ids of the generic ones; how often each own one was written."""

    meters: list[Meter]
    generic: list[str]
    revisions: dict[str, int]


class TextView(BaseModel):
    """A text, or a profile of limits: the figures taken from it, and who read them against it, None for nobody yet."""

    id: str
    title: str
    figures: str
    confirmation: Confirmation | None


class ProfileList(BaseModel):
    """The limits that are built in, and the kinds of part that may have one of their own.

    Attributes
    ----------
    profiles
        Built-in profiles.
    kinds
        Title by kind, of all that can leak.
    loosened
        By profile, one's own too: what it holds looser than the standard.
    texts
        Every profile, one's own first, and the other texts that figures are taken from.
    """

    profiles: list[LimitProfile]
    kinds: dict[str, str]
    loosened: dict[str, list[str]]
    texts: list[TextView]


def _all_meters() -> MeterList:
    revisions = meter_revisions(context())
    return MeterList(meters=show_meters(context()), generic=sorted(GENERIC_IDS), revisions=revisions)


@blueprint.get("/settings", responses={200: KeptSettings}, summary="Settings")
def settings() -> Response:
    """Return the settings."""
    return answer(show_settings(context()))


@blueprint.patch("/settings", responses={200: KeptSettings, 409: Problem}, summary="Change settings")
def new_settings(body: ChangedSettings) -> Response:
    """Change the settings that are named; what another window changed meanwhile is not overwritten."""
    return answer(change_settings(context(), body))


@blueprint.get("/limits", responses={200: ProfileList}, summary="Limits that are built in")
def limits() -> Response:
    """Return the built-in limits; one's own stand in the settings."""
    kept = show_settings(context())
    looser = {row.id: list(loosened(row)) for row in (*BUILT_IN, *kept.own_profiles)}
    texts = [
        TextView(**row._asdict(), confirmation=standing(row, kept.confirmations))
        for row in all_texts(kept.own_profiles)
    ]
    return answer(ProfileList(profiles=list(BUILT_IN), kinds=leaking_kinds(), loosened=looser, texts=texts))


@blueprint.get("/meters", responses={200: MeterList}, summary="Every meter")
def meters() -> Response:
    """Return every meter."""
    return answer(_all_meters())


@blueprint.put("/meters/<meter_id>", responses={200: MeterList, 409: Problem}, summary="Keep one's own meter")
def new_meter(path: MeterPath, body: NewMeter) -> Response:
    """Keep a meter of one's own, new or changed."""
    if body.id != path.meter_id:
        what = f"the meter '{body.id}' is sent to the place of '{path.meter_id[:40]}'"
        raise InputError(what=what, remedy="send it to its own", field="id")
    keep_meter(context(), body)
    return answer(_all_meters())


@blueprint.delete("/meters/<meter_id>", responses={200: MeterList}, summary="Remove one's own meter")
def no_meter(path: MeterPath) -> Response:
    """Remove a meter of one's own."""
    remove_meter(context(), path.meter_id)
    return answer(_all_meters())
