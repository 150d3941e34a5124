"""Six threads at one server: caches are shared, and none of them is caught half filled."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.noon import NOON
from tests.seeded import new_store
from tests.seeded import with_demo as filled
from tests.working import every_job

from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app

THREADS = 6
ROOMS = ("trace", "safe", "power", "proof", "trip", "suspects", "repair", "intake", "codes")


def test_six_threads_read_every_room_at_once(tmp_path: Path) -> None:
    with_demo = filled(Context(new_store(tmp_path), clock=lambda: NOON))

    fresh = Context(with_demo.store)
    app = create_app(fresh)
    asked = [f"/api/jobs/{job.id}/{room}" for job in every_job(with_demo) for room in ROOMS]

    def answers(number: int) -> list[int]:
        client = app.test_client()
        return [client.get(path).status_code for path in asked[number:] + asked[:number]]

    with ThreadPoolExecutor(THREADS) as pool:
        found = [code for codes in pool.map(answers, range(0, 2 * THREADS, 2)) for code in codes]
    assert set(found) == {200}
    with_demo.store.close()
