"""What goes out, as it is shown."""

from __future__ import annotations

from pydantic import BaseModel

from ohmcensus.core.event import CostsNoted
from ohmcensus.services.at_hand.described import Described
from ohmcensus.services.job.photo_view import PhotoView
from ohmcensus.services.job.view import JobView


class SignedRevision(BaseModel):
    """The job as it was signed off once: its sheet is kept, whatever came later."""

    revision: int
    at: str
    who: str
    why: str
    is_labelled_unsafe: bool


class LeakTestView(BaseModel):
    """One leak test in print: when, what was connected, what it read, what it proved."""

    at: str
    connected: str
    reads: str
    proved: str


class SectionView(BaseModel):
    """One part of the customer's page."""

    title: str
    sentences: list[str]


class SheetOutView(Described):
    """What goes out.

    Attributes
    ----------
    is_signed, can_label
        Whether the job has ended; whether a label may be printed.
    blocking
        What keeps it from being signed off, a sentence each.
    leak_tests
        The tests that isolated a leak.
    found, done, proved, signed
        What the sheet says, in words; ``proved`` counts what is shown of what is asked.
    customer, signature
        The customer's page; the name that the customer signed with, empty where nobody did.
    costs, is_costed, total
        What is charged, as it was noted or as it is proposed; the sum in print.
    revisions
        Every time that the job was signed off, oldest first.
    photos, chosen
        Photos of the job; the ids of those that stand on the sheet, in their order.
    """

    job: JobView
    is_signed: bool
    can_label: bool
    blocking: list[str]
    found: str
    leak_tests: list[LeakTestView]
    done: list[str]
    proved: str
    signed: str
    customer: list[SectionView]
    signature: str
    costs: CostsNoted
    is_costed: bool
    total: str
    revisions: list[SignedRevision]
    photos: list[PhotoView]
    chosen: list[str]
