"""From rows to a case."""

from __future__ import annotations

from sqlmodel import Session

from ohmcensus.core.case import Case
from ohmcensus.core.safety import SafetyState
from ohmcensus.services.find_sheet import find_sheet
from ohmcensus.services.keep_settings import Settings
from ohmcensus.storage import readings
from ohmcensus.storage.tables import JobRow, MachineRow


def build_case(session: Session, job: JobRow, machine: MachineRow, settings: Settings) -> Case:
    """Return the case of a job as it is stored now."""
    return Case(
        sheet=find_sheet(machine.sheet_id),
        readings=tuple(reading for _, reading in readings.of_job(session, job.id)),
        celsius=settings.ambient_celsius,
        safety=SafetyState(job.safety),
    )
