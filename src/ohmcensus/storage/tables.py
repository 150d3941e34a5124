"""The tables. Times are ISO 8601 in UTC; ids are UUIDs made by whoever wrote the row first."""

from __future__ import annotations

from sqlalchemy import Column, Computed, Index, LargeBinary, MetaData, String, Table
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


class AddressRow(SQLModel, table=True):
    """A customer, a place or a technician; archived ones are no longer offered."""

    __tablename__ = "address"

    id: str = Field(primary_key=True)
    kind: str = Field(index=True)
    name: str
    contact: str = ""
    note: str = ""
    customer_id: str | None = Field(default=None, foreign_key="address.id")
    is_archived: bool = False
    revision: int = 1


class MachineRow(SQLModel, table=True):
    """A machine that stands somewhere, of a type that a sheet describes; ``plate`` is JSON of the core's model."""

    __tablename__ = "machine"

    id: str = Field(primary_key=True)
    sheet_id: str
    name: str
    place_id: str = Field(foreign_key="address.id", index=True)
    plate: str = "{}"


class SheetRow(SQLModel, table=True):
    """A machine sheet of one's own, as YAML."""

    __tablename__ = "sheet"

    id: str = Field(primary_key=True)
    body: str


class SheetDraftRow(SQLModel, table=True):
    """An own sheet as its editor holds it, as JSON; the revision counts its writes."""

    __tablename__ = "sheet_draft"

    id: str = Field(primary_key=True)
    revision: int
    body: str


class MeaningsRow(SQLModel, table=True):
    """One's own meanings of the codes of one scheme of a sheet, as JSON; they take the place of the sheet's."""

    __tablename__ = "meanings"

    sheet_id: str = Field(primary_key=True)
    scheme: str = Field(primary_key=True)
    body: str


class JobRow(SQLModel, table=True):
    """One visit to one machine.

    ``revision`` grows with every change of anything that belongs to it; ``intake_revision`` is the one at
    which the intake was last written. ``complaint`` is JSON of the core's model, ``unknown_keys`` what a file
    held that this version does not know.
    """

    __tablename__ = "job"
    __table_args__ = (Index("ix_job_order", "is_ended", "changed_at", "id"),)

    id: str = Field(primary_key=True)
    machine_id: str = Field(foreign_key="machine.id", index=True)
    complaint: str = "{}"
    unknown_keys: str = "{}"
    opened_at: str
    changed_at: str
    revision: int = 1
    intake_revision: int = 1
    is_ended: bool = False


class JobSummaryRow(SQLModel, table=True):
    """A job in short, written with every change of it; the search of jobs goes by its number.

    ``card`` is JSON of what the list shows, worked out after the commit; ``version`` says of which revision of the
    job, of the setup and of the code it is.
    """

    __tablename__ = "job_summary"

    number: int | None = Field(default=None, primary_key=True)
    job_id: str = Field(foreign_key="job.id", unique=True)
    asked: int = 0
    outside: int = 0
    card: str = ""
    version: str = ""


class SignedSheetRow(SQLModel, table=True):
    """A job sheet as it was signed: ``body`` is JSON of all that it says, ``pdf`` and ``label`` as they were printed.

    A reconstructed one was signed before sheets were kept and worked out from the records later.
    """

    __tablename__ = "signed_sheet"

    job_id: str = Field(foreign_key="job.id", primary_key=True)
    revision: int = Field(primary_key=True)
    body: str
    pdf: bytes | None = Field(default=None, sa_type=LargeBinary)
    label: bytes | None = Field(default=None, sa_type=LargeBinary)
    at: str
    who: str
    is_reconstructed: bool = False


class CoverTimeRow(SQLModel, table=True):
    """The minutes that a cover took to come off, by the type of the machine."""

    __tablename__ = "cover_time"
    __table_args__ = (Index("ix_cover_time_of_sheet", "sheet_id", "job_id", "panel", "minutes"),)

    event_id: str = Field(primary_key=True)
    job_id: str = Field(index=True)
    sheet_id: str
    panel: str
    minutes: float


class MeterVersionRow(SQLModel, table=True):
    """A meter as it was when readings were taken with it, by the hash of its JSON."""

    __tablename__ = "meter_version"

    hash: str = Field(primary_key=True)
    body: str


class ReadingRow(SQLModel, table=True):
    """One reading, written once and never changed; ``meter`` is the hash of the meter as it was."""

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


class EventRow(SQLModel, table=True):
    """One event, written once and never changed; ``body`` is JSON of the core's model.

    ``refused`` says of one that came in from a file why it would not have been taken here.
    """

    __tablename__ = "event"

    id: str = Field(primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    kind: str = Field(index=True)
    body: str
    at: str
    who: str
    device: str = ""
    refused: str = ""


class FrameRow(SQLModel, table=True):
    """What held on a job from a revision on; ``body`` is JSON: sheet, complaint, plate, limits."""

    __tablename__ = "frame"

    id: int | None = Field(default=None, primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    body: str


class PhotoRow(SQLModel, table=True):
    """A photo of a job; the picture lies in the data directory under the hash of its content.

    ``event_id`` is the record of the job that it shows, empty for none.
    """

    __tablename__ = "photo"

    id: str = Field(primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    role: str
    event_id: str = ""
    content: str = Field(index=True)
    width: int
    height: int
    at: str
    who: str
    is_removed: bool = False
    removed_at: str = ""


class SpareRow(SQLModel, table=True):
    """A spare on the shelf, as JSON of the core's model; the revision counts its writes."""

    __tablename__ = "spare"

    id: str = Field(primary_key=True)
    revision: int
    body: str


class WantedPartRow(SQLModel, table=True):
    """A part that a job wants, as JSON of the core's model; the revision counts its writes."""

    __tablename__ = "wanted_part"

    id: str = Field(primary_key=True)
    job_id: str = Field(foreign_key="job.id", index=True)
    revision: int
    body: str


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
    """A technician's own meter, as JSON of the core's model; the revision counts its writes."""

    __tablename__ = "meter"

    id: str = Field(primary_key=True)
    body: str
    revision: int = 1


class SettingRow(SQLModel, table=True):
    """One setting by name, as JSON; ``revision`` is the one of the setup at which it was last written."""

    __tablename__ = "setting"

    name: str = Field(primary_key=True)
    body: str
    revision: int = 1


# The serial number stands in the plate; earlier jobs on it are looked up at every intake.
table_of(MachineRow).append_column(
    Column("serial", String, Computed("json_extract(plate, '$.serial')", persisted=False), index=True)
)
