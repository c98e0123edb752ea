"""Jobs and their log."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the first tables."""
    op.create_table(
        "job",
        sa.Column("id", sa.String(64), primary_key=True),
        sa.Column("number", sa.Integer, nullable=False, unique=True),
        sa.Column("extra", sa.Text, nullable=False),
        sa.Column("summary", sa.Text),
    )
    op.create_table(
        "entry",
        sa.Column("id", sa.String(64), primary_key=True),
        sa.Column("job_id", sa.String(64), sa.ForeignKey("job.id"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("at", sa.String(32), nullable=False),
        sa.Column("by", sa.String(40), nullable=False),
        sa.Column("station", sa.String(20), nullable=False),
        sa.Column("body", sa.Text, nullable=False),
        sa.Column("extra", sa.Text, nullable=False),
        sa.UniqueConstraint("job_id", "seq", name="entry_in_job"),
    )


def downgrade() -> None:
    """Records are never taken apart."""
    raise RuntimeError("a shop's records are not downgraded")
