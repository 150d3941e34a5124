"""An event that came in from a file says why it would have been refused here."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("event") as table:
        table.add_column(sa.Column("refused", sa.String(), nullable=False, server_default=""))
