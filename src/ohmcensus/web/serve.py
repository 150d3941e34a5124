"""Running the application on the loopback address."""

from __future__ import annotations

import os
import socket
import sys
import threading
from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager
from pathlib import Path
from typing import Any

from flask import Flask
from waitress import wasyncore
from waitress.server import create_server

from ohmcensus.core.errors import InputError
from ohmcensus.services.context import Context
from ohmcensus.storage.database import open_store
from ohmcensus.storage.photos import sweep
from ohmcensus.web.app import create_app

HOST = "127.0.0.1"
THREADS = 6


def serve(folder: Path, port: int, *, demo: bool) -> None:
    """Serve a data directory until stopped; print the address once connections are taken.

    Raises
    ------
    InputError
        If the port is taken or the folder cannot be used.
    """
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    context = Context(open_store(folder))
    sweep(folder)
    if demo:
        from ohmcensus.services.seed_demo import seed_demo  # noqa: PLC0415 - only the demo needs it

        seed_demo(context)
    listener = _listen(port)
    server = create_server(create_app(context), sockets=[listener], threads=THREADS)
    address = f"http://{HOST}:{listener.getsockname()[1]}"
    sys.stdout.write(f"Ohmcensus is at {address}\nData: {folder}\nStop with Ctrl-C.\n")
    sys.stdout.flush()
    try:
        server.run()
    finally:
        server.close()
        context.store.close()


def serving(context: Context) -> AbstractContextManager[str]:
    """Serve an open data directory on a free port while the block runs; yields the address."""
    return running(create_app(context))


@contextmanager
def running(app: Flask) -> Iterator[str]:
    """Run an application on a free port while the block runs; yields the address."""
    listener = _listen(0)
    server: Any = create_server(app, sockets=[listener], threads=THREADS)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        yield f"http://{HOST}:{listener.getsockname()[1]}"
    finally:
        server.task_dispatcher.shutdown()
        # Only the loop's own thread may close what it waits on; with nothing left to wait on, it ends.
        server.trigger.pull_trigger(lambda: wasyncore.close_all(server._map))  # noqa: SLF001
        thread.join(timeout=5)


def _listen(port: int) -> socket.socket:
    """Return a listening socket; port 0 lets the system choose."""
    listener = socket.socket()
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
    except OSError as error:
        listener.close()
        what = f"port {port} cannot be used ({error.strerror})"
        raise InputError(what=what, remedy="choose another with --port", field="port") from error
    listener.listen(128)
    return listener
