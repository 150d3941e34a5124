"""Files that come in over HTTP: small ones at once, large ones beside, stopped on request."""

from __future__ import annotations

import time
import zipfile
from collections.abc import Iterator
from pathlib import Path
from uuid import uuid4

import pytest
from flask.testing import FlaskClient
from tests.seeded import DEMO_JOBS, new_store, with_demo
from tests.working import every_job

from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.transfer import import_beside
from ohmcensus.services.transfer.export_job import export_job
from ohmcensus.web.app import create_app

KIND = "application/octet-stream"


@pytest.fixture
def all_jobs(context: Context, tmp_path: Path) -> bytes:
    with_demo(context)
    export_job(context, "all", tmp_path / "all.zip")
    return (tmp_path / "all.zip").read_bytes()


@pytest.fixture
def other(tmp_path: Path) -> Iterator[Context]:
    store = new_store(tmp_path / "other")
    yield Context(store)
    store.close()


@pytest.fixture
def large(monkeypatch: pytest.MonkeyPatch) -> None:
    """Let every file count as a large one."""
    monkeypatch.setattr(import_beside, "AT_ONCE_BYTES", 0)


def settled(client: FlaskClient, import_id: str) -> dict[str, object]:
    for _ in range(300):
        view = client.get(f"/api/imports/{import_id}").get_json()
        if view["is_over"]:
            return dict(view)
        time.sleep(0.1)
    pytest.fail("the import never ended")


@pytest.mark.usefixtures("large")
def test_a_large_file_comes_in_beside_and_tells_how_far_it_is(other: Context, all_jobs: bytes) -> None:
    client = create_app(other).test_client()
    begun = client.post("/api/imports?name=all.zip", data=all_jobs, content_type=KIND)
    assert begun.status_code == 202
    view = settled(client, begun.get_json()["id"])
    assert (len(view["jobs"]), view["problem"]) == (DEMO_JOBS, "")  # type: ignore[arg-type]
    assert len(every_job(other)) == DEMO_JOBS
    assert list((other.store.folder / ".imports").iterdir()) == []


@pytest.mark.usefixtures("large")
def test_a_stopped_import_leaves_nothing(other: Context, all_jobs: bytes) -> None:
    client = create_app(other).test_client()
    begun = client.post("/api/imports?name=all.zip", data=all_jobs, content_type=KIND).get_json()["id"]
    client.delete(f"/api/imports/{begun}")
    assert "was stopped" in str(settled(client, begun)["problem"])
    assert every_job(other) == []
    assert list((other.store.folder / "photos").rglob("*.jpg")) == []
    assert client.get(f"/api/imports/{uuid4()}").status_code == 404


@pytest.mark.usefixtures("large")
def test_the_same_file_twice_at_once_is_one_import_and_one_sentence(other: Context, all_jobs: bytes) -> None:
    client = create_app(other).test_client()
    first = client.post("/api/imports?name=all.zip", data=all_jobs, content_type=KIND)
    time.sleep(0.2)
    second = client.post("/api/imports?name=all.zip", data=all_jobs, content_type=KIND)
    assert (second.status_code, second.headers["Retry-After"]) == (503, "2")
    assert "another file is coming in: wait" in second.get_json(force=True)["detail"]
    settled(client, first.get_json()["id"])
    assert len(every_job(other)) == DEMO_JOBS


def test_a_job_that_is_too_large_or_packed_too_well_is_refused_before_it_is_unpacked(
    other: Context, tmp_path: Path
) -> None:
    client = create_app(other).test_client()
    with zipfile.ZipFile(tmp_path / "bomb.zip", "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("archive.json", '{"format": "ohmcensus-archive/1"}')
        out.writestr(f"{uuid4()}/job.json", b" " * 30_000_000)
    bomb = (tmp_path / "bomb.zip").read_bytes()
    answer = client.post("/api/imports?name=bomb.zip", data=bomb, content_type=KIND)
    assert (answer.status_code, "200 times its size" in answer.get_json(force=True)["detail"]) == (422, True)
    deep = b"[" * 50_000 + b"]" * 50_000
    for name, body in (("a.json", deep), ("b.json", b'{"a": ' * 9000), ("c.json", b'{"id": "\\ud800"}')):
        answer = client.post(f"/api/imports?name={name}", data=body, content_type=KIND)
        assert (answer.status_code, answer.get_json(force=True)["title"]) == (422, "Cannot be taken as it stands")
