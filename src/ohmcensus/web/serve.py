"""Running the application on the loopback address."""

from __future__ import annotations

import os
import socket
import sys
import threading
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager, contextmanager, suppress
from pathlib import Path
from typing import Any

from flask import Flask
from waitress import wasyncore
from waitress.server import create_server

from ohmcensus.core.errors import InputError
from ohmcensus.services.at_hand.beside import Beside
from ohmcensus.services.at_hand.context import Context
from ohmcensus.services.upkeep.look_after import look_after
from ohmcensus.storage.database import open_store
from ohmcensus.web.app import create_app
from ohmcensus.web.body_limit import LARGEST_ARCHIVE, LimitedChannel

HOST = "127.0.0.1"
THREADS = 12
# Idle browsers hold up to six connections each; a quiet one is let go after a while.
MOST_CONNECTIONS = 1000
IDLE_S = 20


def serve(folder: Path, port: int, prepare: Callable[[Context], None] | None = None) -> None:
    """Serve a data directory until stopped; print the address once connections are taken.

    Parameters
    ----------
    folder, port
        Which, and where.
    prepare
        Fills the store before it is served: the demo.

    Raises
    ------
    InputError
        If the port is taken or the folder cannot be used.
    """
    os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
    os.umask(0o077)
    context = Context(open_store(folder), beside=Beside())
    if prepare is not None:
        prepare(context)
    listener = _listen(port)
    look_after(context)
    server = _server(create_app(context), listener)
    address = f"http://{HOST}:{listener.getsockname()[1]}"
    sys.stdout.write(f"Ohmcensus is at {address}\nData: {folder}\nStop with Ctrl-C.\n")
    sys.stdout.flush()
    try:
        server.run()
    finally:
        server.close()
        if context.beside is not None:
            context.beside.stop()
        context.store.close()


def serving(context: Context) -> AbstractContextManager[str]:
    """Serve an open data directory on a free port while the block runs; yields the address."""
    return running(create_app(context))


@contextmanager
def running(app: Flask) -> Iterator[str]:
    """Run an application on a free port while the block runs; yields the address."""
    listener = _listen(0)
    server: Any = _server(app, listener)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        yield f"http://{HOST}:{listener.getsockname()[1]}"
    finally:
        server.task_dispatcher.shutdown()
        # Only the loop's own thread may close what it waits on; with nothing left to wait on, it ends. One that has
        # ended by itself has closed its trigger too.
        with suppress(OSError):
            server.trigger.pull_trigger(lambda: wasyncore.close_all(server._map))  # noqa: SLF001
        thread.join(timeout=5)


def _server(app: Flask, listener: socket.socket) -> Any:
    """Return a server that is not stopped by idle browsers, and takes in no more of a body than may be."""
    server: Any = create_server(
        app,
        sockets=[listener],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_S,
        cleanup_interval=5,
        max_request_body_size=LARGEST_ARCHIVE + 1_000_000,
    )
    server.channel_class = LimitedChannel
    return server


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
