"""The machine of a job as a ladder, in any configuration."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from ohmcensus.core.errors import InputError
from ohmcensus.core.layout.rung_view import RungView, rung_view
from ohmcensus.core.machine.coverage import configuration_of, driven, probe_of
from ohmcensus.core.machine.netlist import Configuration, default_states, not_on_sheet
from ohmcensus.core.machine.specs import listed_tests
from ohmcensus.core.sheet import Sheet
from ohmcensus.exchange.rung_svg import write_svg
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.at_hand.job import take

Listed = Annotated[str, Field(max_length=400)]


class RungsQuery(BaseModel):
    """Which configuration: plugs that are off, states as name:value, both with commas; or a test's own.

    Attributes
    ----------
    test
        Line of the census sheet whose points get the probes; alone, it also sets up what that test needs.
    """

    model_config = ConfigDict(extra="ignore")

    pulled: Listed = ""
    states: Listed = ""
    test: Annotated[str, Field(max_length=80)] = ""


class StateChoice(BaseModel):
    """A state of the machine, its values, and the one that is shown."""

    name: str
    values: list[str]
    value: str


class PlugChoice(BaseModel):
    """A plug, and whether it is off."""

    id: str
    title: str
    is_pulled: bool


class RungsView(BaseModel):
    """The ladder with the configuration that it shows, and how far line and neutral come in it."""

    model_config = ConfigDict(arbitrary_types_allowed=True)

    states: list[StateChoice]
    plugs: list[PlugChoice]
    from_line: list[str]
    only_from_neutral: list[str]
    not_reached: list[str]
    view: RungView


def show_rungs(context: Context, job_id: str, query: RungsQuery) -> RungsView:
    """Return the ladder of a job's machine.

    Raises
    ------
    NotFoundError
        If there is no such job.
    InputError
        If a plug, state or test is not on the sheet, or the sheet has no wiring.
    """
    sheet, configuration, view = _laid_out(context, job_id, query)
    values = {**default_states(sheet), **configuration.states}
    poles = driven(sheet, configuration)
    return RungsView(
        states=[StateChoice(name=name, values=list(all_), value=values[name]) for name, all_ in sheet.states.items()],
        plugs=[
            PlugChoice(id=name, title=plug.title, is_pulled=name in configuration.pulled)
            for name, plug in sheet.plugs.items()
        ],
        from_line=_titles(sheet, poles.from_line),
        only_from_neutral=_titles(sheet, poles.only_from_neutral),
        not_reached=_titles(sheet, poles.not_reached),
        view=view,
    )


def _titles(sheet: Sheet, parts: Sequence[str]) -> list[str]:
    """Return the titles of electrical parts."""
    return [part.title for part in sheet.parts if part.id in parts and part.pins()]


def rungs_svg(context: Context, job_id: str, query: RungsQuery) -> str:
    """Return the same as a picture."""
    sheet, _, view = _laid_out(context, job_id, query)
    return write_svg(view, f"{sheet.title}, as a ladder")


def _laid_out(context: Context, job_id: str, query: RungsQuery) -> tuple[Sheet, Configuration, RungView]:
    with context.store.read() as session:
        sheet = take(context, session, job_id).case.sheet
    if not sheet.nets:
        what = f"sheet {sheet.id} has no wiring"
        raise InputError(what=what, remedy="add its nets, or choose another sheet in Intake", field="sheet")
    pulled = frozenset(filter(None, query.pulled.split(",")))
    states = dict(_state(text) for text in filter(None, query.states.split(",")))
    probes, own = _asked(sheet, query.test)
    if not pulled and not states:
        pulled, states = own.pulled, dict(own.states)
    configuration = Configuration(pulled, states)
    return sheet, configuration, rung_view(sheet, configuration, probes)


def _asked(sheet: Sheet, test: str) -> tuple[frozenset[str], Configuration]:
    """Return the points of a test and what it needs; nothing where none is named."""
    if not test:
        return frozenset(), Configuration()
    part_id, _, name = test.partition(".")
    part = sheet.part(part_id)
    spec = next((spec for spec in listed_tests(sheet, part_id) if spec.name == name), None) if part else None
    if part is None or spec is None:
        raise not_on_sheet(
            what="test", name=test, known=[f"{p.id}.{s.name}" for p in sheet.parts for s in listed_tests(sheet, p.id)]
        )
    return frozenset(probe_of(part, spec).between), configuration_of(sheet, part, spec)


def _state(text: str) -> tuple[str, str]:
    name, colon, value = text.partition(":")
    if not colon:
        raise InputError(what=f"'{text[:40]}' is not a state", remedy="write name:value", field="states")
    return name, value
