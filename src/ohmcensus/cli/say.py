"""Answers on standard output."""

from __future__ import annotations

import json
import sys


def say(value: object) -> None:
    """Print a value as JSON."""
    sys.stdout.write(json.dumps(value, ensure_ascii=False, allow_nan=False, indent=2) + "\n")
