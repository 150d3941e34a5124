"""What is signed is kept, jobs are summed up and searched, kinds and meters are columns, shared rows are counted.

The summaries of older jobs begin empty: what they show is worked out and kept when they are first listed.
"""

import hashlib

import sqlalchemy as sa
from alembic import op

from ohmcensus.storage.search_text import words_in
from ohmcensus.storage.summaries import SEARCHED

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    _kinds()
    _meters()
    _signed_sheets()
    _cover_times()
    _summaries()
    _counted()


def _kinds() -> None:
    with op.batch_alter_table("event") as table:
        table.add_column(sa.Column("kind", sa.String(), nullable=False, server_default=""))
    op.execute("UPDATE event SET kind = json_extract(body, '$.kind')")
    op.create_index("ix_event_kind", "event", ["kind"])
    op.execute(
        "ALTER TABLE machine ADD COLUMN serial VARCHAR GENERATED ALWAYS AS (json_extract(plate, '$.serial')) VIRTUAL"
    )
    op.create_index("ix_machine_serial", "machine", ["serial"])


def _meters() -> None:
    """Keep each version of a meter once; a reading names it by the hash of its content."""
    op.create_table(
        "meter_version",
        sa.Column("hash", sa.String(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("hash", name="pk_meter_version"),
    )
    connection = op.get_bind()
    for (body,) in connection.execute(sa.text("SELECT DISTINCT meter FROM reading")).all():
        told = {"hash": hashlib.sha256(body.encode()).hexdigest()[:24], "body": body}
        connection.execute(sa.text("INSERT INTO meter_version (hash, body) VALUES (:hash, :body)"), told)
    op.execute("UPDATE reading SET meter = (SELECT hash FROM meter_version WHERE body = reading.meter)")


def _signed_sheets() -> None:
    op.create_table(
        "signed_sheet",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.Column("pdf", sa.LargeBinary(), nullable=True),
        sa.Column("label", sa.LargeBinary(), nullable=True),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("who", sa.String(), nullable=False),
        sa.Column("is_reconstructed", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_signed_sheet_job_id_job"),
        sa.PrimaryKeyConstraint("job_id", "revision", name="pk_signed_sheet"),
    )


def _cover_times() -> None:
    op.create_table(
        "cover_time",
        sa.Column("event_id", sa.String(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("sheet_id", sa.String(), nullable=False),
        sa.Column("panel", sa.String(), nullable=False),
        sa.Column("minutes", sa.Float(), nullable=False),
        sa.PrimaryKeyConstraint("event_id", name="pk_cover_time"),
    )
    op.create_index("ix_cover_time_of_sheet", "cover_time", ["sheet_id", "job_id", "panel", "minutes"])
    op.create_index("ix_cover_time_job_id", "cover_time", ["job_id"])
    op.execute(
        "INSERT INTO cover_time (event_id, job_id, sheet_id, panel, minutes)"
        " SELECT event.id, event.job_id, machine.sheet_id, json_extract(body, '$.panel'),"
        " json_extract(body, '$.minutes')"
        " FROM event JOIN job ON job.id = event.job_id JOIN machine ON machine.id = job.machine_id"
        " WHERE event.kind = 'strip_step' AND json_extract(body, '$.panel') != ''"
        " AND json_extract(body, '$.minutes') IS NOT NULL"
    )


def _summaries() -> None:
    with op.batch_alter_table("job") as table:
        table.add_column(sa.Column("is_ended", sa.Boolean(), nullable=False, server_default=sa.false()))
    op.execute(
        "UPDATE job SET is_ended = 1 WHERE (SELECT kind FROM event WHERE event.job_id = job.id"
        " AND kind IN ('ended', 'reopened') ORDER BY revision DESC LIMIT 1) = 'ended'"
    )
    op.create_index("ix_job_order", "job", ["is_ended", "changed_at", "id"])
    op.create_table(
        "job_summary",
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("asked", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("outside", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("card", sa.String(), nullable=False, server_default=""),
        sa.Column("version", sa.String(), nullable=False, server_default=""),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_job_summary_job_id_job"),
        sa.PrimaryKeyConstraint("number", name="pk_job_summary"),
        sa.UniqueConstraint("job_id", name="uq_job_summary_job_id"),
    )
    op.execute("INSERT INTO job_summary (job_id) SELECT id FROM job ORDER BY opened_at")
    op.execute(SEARCHED)
    connection = op.get_bind()
    rows = connection.execute(sa.text(_TEXTS)).all()
    for number, head, complaint, plate, readings, notes, bodies in rows:
        told = " ".join((head or "", words_in(complaint), words_in(plate)))
        log = " ".join((readings or "", notes or "", *(words_in(body) for body in (bodies or "").split("\x1e"))))
        row = {"number": number, "head": told, "log": log}
        connection.execute(sa.text("INSERT INTO job_search (rowid, head, log) VALUES (:number, :head, :log)"), row)


_TEXTS = """
SELECT job_summary.number, machine.name || ' ' || place.name || ' ' || coalesce(customer.name, ''),
 job.complaint, machine.plate,
 (SELECT group_concat(coalesce(test, point_a || ' ' || point_b) || ' ' || text, ' ') FROM reading
  WHERE reading.job_id = job.id),
 (SELECT group_concat(text, ' ') FROM note WHERE note.job_id = job.id),
 (SELECT group_concat(body, char(30)) FROM event WHERE event.job_id = job.id)
FROM job_summary JOIN job ON job.id = job_summary.job_id JOIN machine ON machine.id = job.machine_id
 JOIN address AS place ON place.id = machine.place_id LEFT JOIN address AS customer ON customer.id = place.customer_id
"""


def _counted() -> None:
    """Rows that several windows write count their writes; a removed photo says since when."""
    with op.batch_alter_table("photo") as table:
        table.add_column(sa.Column("removed_at", sa.String(), nullable=False, server_default=""))
    for name in ("address", "meter", "setting"):
        with op.batch_alter_table(name) as table:
            table.add_column(sa.Column("revision", sa.Integer(), nullable=False, server_default="1"))


def downgrade() -> None:
    with op.batch_alter_table("photo") as table:
        table.drop_column("removed_at")
    for name in ("address", "meter", "setting"):
        with op.batch_alter_table(name) as table:
            table.drop_column("revision")
    op.execute("DROP TABLE job_search")
    op.drop_table("job_summary")
    op.drop_index("ix_job_order", "job")
    with op.batch_alter_table("job") as table:
        table.drop_column("is_ended")
    op.drop_table("cover_time")
    op.drop_table("signed_sheet")
    op.execute("UPDATE reading SET meter = (SELECT body FROM meter_version WHERE hash = reading.meter)")
    op.drop_table("meter_version")
    op.drop_index("ix_machine_serial", "machine")
    op.execute("ALTER TABLE machine DROP COLUMN serial")
    op.drop_index("ix_event_kind", "event")
    with op.batch_alter_table("event") as table:
        table.drop_column("kind")
