"""Drafts of machine sheets: what an editor holds until it is put into use."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "sheet_draft",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("body", sa.String(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_sheet_draft"),
    )


def downgrade() -> None:
    op.drop_table("sheet_draft")
