"""What held when: sheet, complaint, plate and limits by revision; and the device that wrote an event."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "frame",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_frame_job_id_job"),
        sa.PrimaryKeyConstraint("id", name="pk_frame"),
    )
    op.create_index("ix_frame_job_id", "frame", ["job_id"])
    with op.batch_alter_table("event") as table:
        table.add_column(sa.Column("device", sa.String(), nullable=False, server_default=""))


def downgrade() -> None:
    with op.batch_alter_table("event") as table:
        table.drop_column("device")
    op.drop_index("ix_frame_job_id", "frame")
    op.drop_table("frame")
