"""Moments in print: what is kept in UTC, as the clock on the wall of a time zone shows it."""

from __future__ import annotations

from datetime import date, datetime, tzinfo


def local(moment: str, zone: tzinfo) -> datetime:
    """Return a moment as ISO 8601 keeps it, e.g. ``2026-06-01T10:10:00Z``, on the clock of a zone."""
    return datetime.fromisoformat(moment).astimezone(zone)


def day_words(day: date) -> str:
    """Return a day as it is printed, e.g. ``1 Jun 2026``: no order of figures that two countries read differently."""
    return f"{day.day} {day:%b %Y}"


def moment_words(moment: str, zone: tzinfo) -> str:
    """Return day, time and zone of a moment, e.g. ``1 Jun 2026, 12:10 CEST``."""
    at = local(moment, zone)
    return f"{day_words(at)}, {at:%H:%M %Z}"


def clock_words(moment: str, zone: tzinfo) -> str:
    """Return the time of day alone, e.g. ``12:10``."""
    return f"{local(moment, zone):%H:%M}"
