"""Debian's Chromium, started so that it stays quiet and works for root."""

from __future__ import annotations

import shutil

from playwright.sync_api import Browser, Playwright

_FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-default-apps",
    "--disable-dev-shm-usage",
]


def launch(play: Playwright) -> Browser:
    """Start the system's Chromium."""
    return play.chromium.launch(executable_path=shutil.which("chromium") or "/usr/bin/chromium", args=_FLAGS)
