"""The tables of a shop; the same on SQLite and PostgreSQL: JSON and times are kept as text."""

from sqlalchemy import Column, ForeignKey, Integer, MetaData, String, Table, Text, UniqueConstraint

metadata = MetaData()

jobs = Table(
    "job",
    metadata,
    Column("id", String(64), primary_key=True),
    Column("number", Integer, nullable=False, unique=True),
    Column("extra", Text, nullable=False),  # keys of the job document this version does not know
    Column("summary", Text),  # can always be rebuilt from the log
)

entries = Table(
    "entry",
    metadata,
    Column("id", String(64), primary_key=True),
    Column("job_id", String(64), ForeignKey("job.id"), nullable=False),
    Column("seq", Integer, nullable=False),
    Column("at", String(32), nullable=False),
    Column("by", String(40), nullable=False),
    Column("station", String(20), nullable=False),
    Column("body", Text, nullable=False),
    Column("extra", Text, nullable=False),
    UniqueConstraint("job_id", "seq", name="entry_in_job"),
)
