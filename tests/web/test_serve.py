"""Starting and stopping the server, and what it says when it cannot."""

from __future__ import annotations

import json
import socket
import subprocess
import sys
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from ohmcensus.core.errors import InputError
from ohmcensus.services.at_hand.context import Context
from ohmcensus.web.app import create_app
from ohmcensus.web.serve import serve, serving


def test_a_taken_port_is_told_with_a_remedy(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with pytest.raises(InputError, match=f"port {port} cannot be used .*: choose another with --port"):
            serve(tmp_path, port)


def test_the_server_ends_with_its_block(context: Context) -> None:
    with serving(context) as address, urllib.request.urlopen(f"{address}/api/health", timeout=5) as answer:
        assert json.load(answer) == {"ok": True, "warnings": []}
    with pytest.raises(urllib.error.URLError):
        urllib.request.urlopen(f"{address}/api/health", timeout=2)


def test_only_the_loopback_address_listens(context: Context) -> None:
    with serving(context) as address:
        assert address.startswith("http://127.0.0.1:")


def test_a_page_that_was_not_built_says_what_to_do(context: Context, tmp_path: Path) -> None:
    client = create_app(context, static_folder=tmp_path).test_client()
    assert b"make demo" in client.get("/").data


def test_every_answer_carries_the_guards_of_a_browser(context: Context) -> None:
    answer = create_app(context).test_client().get("/api/jobs")
    assert "frame-ancestors 'none'" in answer.headers["Content-Security-Policy"]
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    assert answer.headers["Cache-Control"] == "no-store"


def test_the_demo_prints_its_address_and_holds_the_marina(tmp_path: Path) -> None:
    command = [sys.executable, "-m", "ohmcensus", "demo", "--port", "0", "--data", str(tmp_path / "demo")]
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as server:
        assert server.stdout is not None
        address = server.stdout.readline().split()[-1]
        with urllib.request.urlopen(f"{address}/api/jobs", timeout=10) as answer:
            found = json.load(answer)["jobs"]
        server.terminate()
    assert {job["place"] for job in found} >= {"Wash house, Reedmere Marina", "Lock cottage, upper gate"}
