"""The tables. Times are ISO 8601 in UTC; ids are UUIDs made by whoever wrote the row first."""

from __future__ import annotations

from sqlalchemy import MetaData, Table
from sqlmodel import Field, SQLModel

NAMING = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}
SQLModel.metadata.naming_convention = NAMING
metadata: MetaData = SQLModel.metadata


def table_of(row: type[SQLModel]) -> Table:
    """Return the plain table behind a row class, for statements that skip the object layer."""
    return metadata.tables[str(row.__tablename__)]


class MachineRow(SQLModel, table=True):
    """A machine that stands somewhere, of a type that a sheet describes."""

    __tablename__ = "machine"

    id: str = Field(primary_key=True)
    sheet_id: str
    name: str
    place: str
    serial: str = ""


class JobRow(SQLModel, table=True):
    """One visit to one machine; ``revision`` grows with every change of anything that belongs to it."""

    __tablename__ = "job"

    id: str = Field(primary_key=True)
    machine_id: str = Field(foreign_key="machine.id", index=True)
    complaint: str = ""
    opened_at: str
    changed_at: str
    revision: int = 1
    safety: str
    safety_at: str = ""
    safety_reason: str = ""


class ReadingRow(SQLModel, table=True):
    """One reading, written once and never changed."""

    __tablename__ = "reading"

    id: str = Field(primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    test: str | None = None
    point_a: str
    point_b: str
    function: str
    meter: str
    text: str
    value: float | None = None
    unit: str
    bound: str
    last_place: float
    celsius: float
    configuration: str
    verdict: str
    judgement: str
    at: str
    who: str
    supersedes: str | None = Field(default=None, foreign_key="reading.id")
    withdrawn: bool = False


class NoteRow(SQLModel, table=True):
    """A note on a line; the newest of a line stands, an empty one takes it back."""

    __tablename__ = "note"

    id: str = Field(primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    line: str
    text: str
    at: str
    who: str


class MeterRow(SQLModel, table=True):
    """A technician's own meter, as JSON of the core's model."""

    __tablename__ = "meter"

    id: str = Field(primary_key=True)
    body: str


class SettingRow(SQLModel, table=True):
    """One setting by name, as JSON."""

    __tablename__ = "setting"

    name: str = Field(primary_key=True)
    body: str
