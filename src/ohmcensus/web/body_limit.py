"""Bodies are cut off at their limit: what is larger is refused by its headers, before any of it is taken in."""

from __future__ import annotations

import copy
from typing import Any

from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser
from waitress.utilities import RequestEntityTooLarge

from ohmcensus.web.problems import MIMETYPE, Problem

LARGEST_BODY = 1_000_000
LARGEST_UPLOAD = 31_000_000
LARGEST_ARCHIVE = 300_000_000
ARCHIVES = "/api/imports"


def most_bytes(path: str) -> int:
    """Return the most bytes that are taken in at a path."""
    if path == ARCHIVES:
        return LARGEST_ARCHIVE
    return LARGEST_UPLOAD if path.endswith(("/photos", "/mark", "/import")) else LARGEST_BODY


def too_large(path: str, length: int) -> str:
    """Say what is too large, and what to do."""
    most = most_bytes(path)
    remedy = {LARGEST_ARCHIVE: "import it on the command line: ohmcensus import FILE"}.get(most, "")
    remedy = remedy or ("take it at a lower resolution" if most == LARGEST_UPLOAD else "send less at once")
    return f"{length / 1e6:.0f} MB were sent, at most {max(most // 1_000_000 // 10 * 10, 1)} MB are taken: {remedy}"


class _TooLarge(RequestEntityTooLarge):
    """The refusal as a problem answer."""

    def to_response(self, ident: str | None = None) -> Any:
        """Return status, headers and body."""
        del ident
        problem = Problem(type="about:blank", title=self.reason, status=self.code, detail=self.body)
        body = problem.model_dump_json(exclude_none=True).encode()
        headers = [("Content-Length", str(len(body))), ("Content-Type", MIMETYPE), ("Connection", "close")]
        return f"{self.code} {self.reason}", headers, body


class LimitedParser(HTTPRequestParser):
    """Reads a request with the limit of its path."""

    path: str

    def parse_header(self, header_plus: bytes) -> None:
        """Read the headers; from here on the limit is that of the path."""
        super().parse_header(header_plus)
        limited: Any = copy.copy(self.adj)
        limited.max_request_body_size = most_bytes(self.path) + 1
        self.adj = limited

    def received(self, data: bytes) -> int:
        """Take in a piece; one that is over the limit ends the request with a sentence."""
        count = int(super().received(data))
        if isinstance(self.error, RequestEntityTooLarge) and not isinstance(self.error, _TooLarge):
            self.error = _TooLarge(too_large(self.path, max(self.content_length, self.body_bytes_received)))
        return count


class LimitedChannel(HTTPChannel):
    """A connection whose requests are read so."""

    parser_class = LimitedParser
