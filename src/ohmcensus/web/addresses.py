"""The address book, and the machines where they stand."""

from __future__ import annotations

from uuid import UUID

from flask import Response
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ohmcensus.core.errors import InputError
from ohmcensus.services.setup.keep_address import Address, AddressBook, keep_address, show_addresses
from ohmcensus.services.setup.list_machines import MachineView, list_machines
from ohmcensus.web.answers import answer, context
from ohmcensus.web.problems import Problem

blueprint = APIBlueprint("addresses", __name__, url_prefix="/api")


class AddressPath(BaseModel):
    """Which entry."""

    address_id: UUID


class MachineList(BaseModel):
    """All machines."""

    machines: list[MachineView]


@blueprint.get("/addresses", responses={200: AddressBook}, summary="Customers, places, technicians")
def addresses() -> Response:
    """Return the address book, archived entries too."""
    return answer(show_addresses(context()))


@blueprint.put(
    "/addresses/<address_id>", responses={200: Address, 409: Problem}, summary="Keep an entry of the address book"
)
def address(path: AddressPath, body: Address) -> Response:
    """Keep an entry, new, changed or archived.

    Raises
    ------
    InputError
        If the body is another entry's.
    """
    if body.id != path.address_id:
        what = "the entry has another id than its address"
        raise InputError(what=what, remedy="send it to its own address", field="id")
    return answer(keep_address(context(), body))


@blueprint.get("/machines", responses={200: MachineList}, summary="Machines where they stand")
def machines() -> Response:
    """Return every machine at a place that is not archived."""
    return answer(MachineList(machines=list_machines(context())))
