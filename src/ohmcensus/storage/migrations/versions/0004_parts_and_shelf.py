"""Photos of a step, parts that a job wants, the shelf of spares, and what a job's file held beyond what is known."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "spare",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_spare"),
    )
    op.create_table(
        "wanted_part",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_wanted_part_job_id_job"),
        sa.PrimaryKeyConstraint("id", name="pk_wanted_part"),
    )
    op.create_index("ix_wanted_part_job_id", "wanted_part", ["job_id"])
    with op.batch_alter_table("photo") as table:
        table.add_column(sa.Column("event_id", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("job") as table:
        table.add_column(sa.Column("unknown_keys", sa.String(), nullable=False, server_default="{}"))


def downgrade() -> None:
    with op.batch_alter_table("job") as table:
        table.drop_column("unknown_keys")
    with op.batch_alter_table("photo") as table:
        table.drop_column("event_id")
    op.drop_index("ix_wanted_part_job_id", "wanted_part")
    op.drop_table("wanted_part")
    op.drop_table("spare")
