"""Sent twice, stored once; the id of something else is refused; two windows do not write over each other."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from uuid import UUID, uuid4

import pytest
from tests.services.test_strip import picture
from tests.working import revision

from ohmcensus.core.errors import InputError, StaleRevisionError
from ohmcensus.core.event import Checked, CheckOutcome
from ohmcensus.core.meter import generic_meter
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.event.record_event import NewEvent, record_event
from ohmcensus.services.job.open_job import NewJob, open_job
from ohmcensus.services.photo.keep_photo import NewPhoto, keep_photo
from ohmcensus.services.reading.log_reading import NewReading, Withdrawal, log_reading, withdraw_reading
from ohmcensus.services.reading.show_trace import show_trace
from ohmcensus.services.reading.write_note import NewNote, write_note
from ohmcensus.services.setup.change_settings import ChangedSettings, change_settings, show_settings
from ohmcensus.services.setup.keep_address import Address, AddressKind, keep_address
from ohmcensus.services.setup.keep_meter import NewMeter, keep_meter


@dataclass
class Bench:
    """Two jobs, and one id."""

    context: Context
    job: str
    other: str
    id: UUID


@pytest.fixture
def bench(context: Context) -> Bench:
    jobs = [
        open_job(context, NewJob(id=uuid4(), machine=name, place="Pier", sheet="fl7-u")).id
        for name in ("Machine 1", "Machine 2")
    ]
    return Bench(context, jobs[0], jobs[1], uuid4())


def reading(bench: Bench, job: str, what: str) -> None:
    text = {"one": "outlet 229", "other": "outlet 231"}[what]
    log_reading(bench.context, job, NewReading(id=bench.id, revision=revision(bench.context, job), text=text))


def correction(bench: Bench, job: str, what: str) -> None:
    before = show_trace(bench.context, job).last_reading
    if before is None or UUID(before) == bench.id:
        row = NewReading(id=uuid4(), revision=revision(bench.context, job), text="outlet 200")
        before = before or log_reading(bench.context, job, row).last_reading
    told = {"one": None, "other": before}[what]
    new = NewReading(id=bench.id, revision=revision(bench.context, job), text="outlet 229", supersedes=told)
    log_reading(bench.context, job, new)


def event(bench: Bench, job: str, what: str) -> None:
    body = Checked(check="cord.look_cord", outcome={"one": CheckOutcome.GOOD, "other": CheckOutcome.BAD}[what])
    record_event(bench.context, job, NewEvent(id=bench.id, revision=revision(bench.context, job), body=body))


def note(bench: Bench, job: str, what: str) -> None:
    new = NewNote(id=bench.id, revision=revision(bench.context, job), line="heater.element", text=what)
    write_note(bench.context, job, new)


def photo(bench: Bench, job: str, what: str) -> None:
    body = {"one": picture(20), "other": picture(200)}[what]
    keep_photo(bench.context, job, NewPhoto(bench.id, "found", "a.jpg", body))


WAYS = [reading, correction, event, note, photo]


@pytest.mark.parametrize("send", WAYS, ids=lambda way: way.__name__)
def test_what_is_sent_twice_is_stored_once(bench: Bench, send: Callable[[Bench, str, str], None]) -> None:
    send(bench, bench.job, "one")
    before = revision(bench.context, bench.job)
    send(bench, bench.job, "one")
    if send is not correction:
        assert revision(bench.context, bench.job) == before


@pytest.mark.parametrize("send", WAYS, ids=lambda way: way.__name__)
@pytest.mark.parametrize("where", ["same job", "other job"])
def test_the_id_of_something_else_is_refused_everywhere(
    bench: Bench, send: Callable[[Bench, str, str], None], where: str
) -> None:
    send(bench, bench.job, "one")
    job, what = (bench.job, "other") if where == "same job" else (bench.other, "one")
    before = revision(bench.context, job)
    with pytest.raises(InputError, match=r"the id .* belongs to another"):
        send(bench, job, what)
    if send is not correction:
        assert revision(bench.context, job) == before


def test_a_withdrawal_sent_for_another_reading_is_refused(bench: Bench) -> None:
    context, job = bench.context, bench.job
    for text in ("outlet 229", "outlet 230"):
        log_reading(context, job, NewReading(id=uuid4(), revision=revision(context, job), text=text))
    first, second = (row.id for line in show_trace(context, job).lines for row in line.history)
    withdraw_reading(context, job, second, Withdrawal(id=bench.id, revision=revision(context, job)))
    with pytest.raises(InputError, match="belongs to another reading"):
        withdraw_reading(context, job, first, Withdrawal(id=bench.id, revision=revision(context, job)))


def test_two_windows_change_different_settings_and_both_hold(context: Context) -> None:
    seen = show_settings(context).revision
    change_settings(context, ChangedSettings(revision=seen, technician="Anna"))
    after = change_settings(context, ChangedSettings(revision=seen, ambient_celsius=18.0))
    assert (after.technician, after.ambient_celsius) == ("Anna", 18.0)


def test_two_windows_change_the_same_setting_and_both_values_are_told(context: Context) -> None:
    seen = show_settings(context).revision
    change_settings(context, ChangedSettings(revision=seen, ambient_celsius=18.0))
    with pytest.raises(StaleRevisionError, match="is 18 since another window changed it; you typed 24") as told:
        change_settings(context, ChangedSettings(revision=seen, ambient_celsius=24.0))
    assert show_settings(context).ambient_celsius == 18.0
    again = ChangedSettings(revision=told.value.current, ambient_celsius=24.0)
    assert change_settings(context, again).ambient_celsius == 24.0


def test_two_windows_write_one_address_and_one_meter(context: Context) -> None:
    place = keep_address(context, Address(id=uuid4(), kind=AddressKind.PLACE, name="Pier"))
    keep_address(context, place.model_copy(update={"contact": "at the slip"}))
    with pytest.raises(StaleRevisionError, match="'Pier', at the slip stands there since"):
        keep_address(context, place.model_copy(update={"contact": "behind the crane"}))
    assert keep_address(context, place.model_copy(update={"contact": "at the slip"})).revision == 2
    mine = generic_meter("multimeter-2000").model_dump() | {"id": "own-1", "title": "Mine"}
    keep_meter(context, NewMeter(**mine))
    keep_meter(context, NewMeter(**mine | {"serial": "S1", "revision": 1}))
    with pytest.raises(StaleRevisionError, match="is 'Mine' since another window"):
        keep_meter(context, NewMeter(**mine | {"serial": "S2", "revision": 1}))
