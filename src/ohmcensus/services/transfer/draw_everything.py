"""Everything that the screens and the files show of a job, worked out once: what cannot be shown is not taken in."""

from __future__ import annotations

from ohmcensus.core.trip.problem import Method
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.codes.show_codes import show_codes
from ohmcensus.services.intake.show_intake import show_intake
from ohmcensus.services.job.list_jobs import keep_card
from ohmcensus.services.job.show_changes import show_changes
from ohmcensus.services.proof.show_proof import show_proof
from ohmcensus.services.reading.show_rungs import RungsQuery, show_rungs
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.repair.show_repair import show_repair
from ohmcensus.services.safety.show_power import show_power
from ohmcensus.services.safety.show_safe import show_safe
from ohmcensus.services.sheet_out.show_sheet_out import show_sheet_out
from ohmcensus.services.suspects.show_suspects import SuspectsQuery, show_suspects
from ohmcensus.services.transfer.export_job import job_file
from ohmcensus.services.trip.show_story import show_trip_story
from ohmcensus.services.trip.show_trip import TripQuery, show_trip


def draw_every_view(context: Context, job_id: str) -> None:
    """Work out every view of a job.

    Raises
    ------
    Exception
        Whatever the first view raises that cannot be drawn.
    """
    show_intake(context, job_id).model_dump_json()
    show_safe(context, job_id).model_dump_json()
    show_power(context, job_id).model_dump_json()
    show_codes(context, job_id).model_dump_json()
    show_trace(context, job_id).model_dump_json()
    show_rungs(context, job_id, RungsQuery()).model_dump_json()
    show_suspects(context, job_id, SuspectsQuery()).model_dump_json()
    for method in Method:
        show_trip(context, job_id, TripQuery(method=method)).model_dump_json()
        show_trip_story(context, job_id, TripQuery(method=method)).model_dump_json()
    show_repair(context, job_id).model_dump_json()
    show_proof(context, job_id).model_dump_json()
    show_sheet_out(context, job_id).model_dump_json()
    show_changes(context, job_id, 0).model_dump_json()
    job_file(context, job_id).model_dump_json()
    keep_card(context, job_id)
