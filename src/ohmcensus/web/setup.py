"""Setup: settings and meters."""

from __future__ import annotations

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.core.limits import BUILT_IN, LimitProfile
from ohmcensus.core.meter import Meter
from ohmcensus.core.terms import loosened
from ohmcensus.services.keep_meter import GENERIC_IDS, keep_meter, remove_meter, show_meters
from ohmcensus.services.keep_settings import Settings, keep_settings, show_settings
from ohmcensus.services.list_kinds import leaking_kinds
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint(
    "setup",
    __name__,
    url_prefix="/api",
    abp_responses={400: Problem, 403: Problem, 404: Problem, 415: Problem, 422: Problem},
)


class MeterPath(BaseModel):
    """Which meter."""

    meter_id: str


class MeterList(BaseModel):
    """Every meter, one's own first, and the ids of the generic ones."""

    meters: list[Meter]
    generic: list[str]


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
    """

    profiles: list[LimitProfile]
    kinds: dict[str, str]
    loosened: dict[str, list[str]]


def _all_meters() -> MeterList:
    return MeterList(meters=show_meters(context()), generic=sorted(GENERIC_IDS))


@blueprint.get("/settings", responses={200: Settings}, summary="Settings")
def settings() -> Response:
    """Return the settings."""
    return answer(show_settings(context()))


@blueprint.put("/settings", responses={200: Settings}, summary="Keep settings")
def new_settings(body: Settings) -> Response:
    """Keep the settings."""
    return answer(keep_settings(context(), body))


@blueprint.get("/limits", responses={200: ProfileList}, summary="Limits that are built in")
def limits() -> Response:
    """Return the built-in limits; one's own stand in the settings."""
    every = (*BUILT_IN, *show_settings(context()).own_profiles)
    looser = {row.id: list(loosened(row)) for row in every}
    return answer(ProfileList(profiles=list(BUILT_IN), kinds=leaking_kinds(), loosened=looser))


@blueprint.get("/meters", responses={200: MeterList}, summary="Every meter")
def meters() -> Response:
    """Return every meter."""
    return answer(_all_meters())


@blueprint.post("/meters", responses={201: MeterList}, summary="Keep one's own meter")
def new_meter(body: Meter) -> Response:
    """Keep a meter of one's own, new or changed."""
    keep_meter(context(), body)
    return answer(_all_meters(), 201)


@blueprint.delete("/meters/<meter_id>", responses={200: MeterList}, summary="Remove one's own meter")
def no_meter(path: MeterPath) -> Response:
    """Remove a meter of one's own."""
    remove_meter(context(), path.meter_id)
    return answer(_all_meters())
