"""Intake: address book, plates, events, photos, own sheets and meanings.

Places become rows of their own, complaint texts become documents. The old statement of safety is left
out: it proved nothing.
"""

import json
import uuid

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

TEXT, NUMBER, FLAG = sa.String(), sa.Integer(), sa.Boolean()


def _column(name, kind=TEXT, *, null=False, default=None, **more):
    return sa.Column(name, kind, nullable=null, server_default=default, **more)


def upgrade() -> None:
    op.create_table(
        "address",
        _column("id"),
        _column("kind"),
        _column("name"),
        _column("contact"),
        _column("note"),
        _column("customer_id", null=True),
        _column("is_archived", FLAG),
        sa.ForeignKeyConstraint(["customer_id"], ["address.id"], name="fk_address_customer_id_address"),
        sa.PrimaryKeyConstraint("id", name="pk_address"),
    )
    op.create_index("ix_address_kind", "address", ["kind"])
    _parts_of_a_job()
    op.create_table("sheet", _column("id"), _column("body"), sa.PrimaryKeyConstraint("id", name="pk_sheet"))
    op.create_table(
        "meanings",
        _column("sheet_id"),
        _column("scheme"),
        _column("body"),
        sa.PrimaryKeyConstraint("sheet_id", "scheme", name="pk_meanings"),
    )
    _machines()
    _jobs()


def _parts_of_a_job() -> None:
    """Make the tables of events and photos."""
    for name, columns in (
        ("event", [_column("body")]),
        (
            "photo",
            [
                _column("role"),
                _column("content"),
                _column("width", NUMBER),
                _column("height", NUMBER),
                _column("is_removed", FLAG),
            ],
        ),
    ):
        op.create_table(
            name,
            _column("id"),
            _column("job_id"),
            _column("revision", NUMBER),
            *columns,
            _column("at"),
            _column("who"),
            sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=f"fk_{name}_job_id_job"),
            sa.PrimaryKeyConstraint("id", name=f"pk_{name}"),
        )
        op.create_index(f"ix_{name}_job_id", name, ["job_id"])
    op.create_index("ix_photo_content", "photo", ["content"])


def _machines() -> None:
    """Give every machine a place and a plate."""
    data = op.get_bind()
    with op.batch_alter_table("machine") as table:
        table.add_column(_column("place_id", null=True))
        table.add_column(_column("plate", default="{}"))
    for (name,) in data.execute(sa.text("SELECT DISTINCT place FROM machine")).all():
        place = str(uuid.uuid4())
        data.execute(
            sa.text("INSERT INTO address VALUES (:id, 'place', :name, '', '', NULL, 0)"), {"id": place, "name": name}
        )
        data.execute(sa.text("UPDATE machine SET place_id = :id WHERE place = :name"), {"id": place, "name": name})
    for machine, serial in data.execute(sa.text("SELECT id, serial FROM machine WHERE serial != ''")).all():
        plate = json.dumps({"serial": serial})
        data.execute(sa.text("UPDATE machine SET plate = :plate WHERE id = :id"), {"id": machine, "plate": plate})
    with op.batch_alter_table("machine") as table:
        table.alter_column("place_id", nullable=False)
        table.alter_column("plate", server_default=None)
        table.drop_column("place")
        table.drop_column("serial")
        table.create_foreign_key("fk_machine_place_id_address", "address", ["place_id"], ["id"])
        table.create_index("ix_machine_place_id", ["place_id"])


def _jobs() -> None:
    """Turn complaint texts into documents."""
    data = op.get_bind()
    with op.batch_alter_table("job") as table:
        table.add_column(_column("intake_revision", NUMBER, default="1"))
        for name in ("safety", "safety_at", "safety_reason"):
            table.drop_column(name)
    for job, words in data.execute(sa.text("SELECT id, complaint FROM job")).all():
        complaint = json.dumps({"words": words} if words else {})
        data.execute(sa.text("UPDATE job SET complaint = :words WHERE id = :id"), {"id": job, "words": complaint})
    with op.batch_alter_table("job") as table:
        table.alter_column("intake_revision", server_default=None)
