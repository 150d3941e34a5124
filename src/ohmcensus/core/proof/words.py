"""What a proof shows, in words: what it reads, what was computed, by which tester and which method."""

from __future__ import annotations

from typing import Literal

from ohmcensus.core.proof import Proof
from ohmcensus.core.quantity import show_indication


def reads_words(row: Proof) -> str:
    """Return what was read or timed, in print; empty where nothing was."""
    if row.warmed:
        rise, _ = row.warmed
        return f"{rise.minutes:g} min"
    return show_indication(row.shows) if row.shows else ""


def computed_words(row: Proof) -> str:
    """Return the minutes that a sound heater takes for what was timed; empty while nothing was."""
    return f"{row.warmed[1].lo:.1f} to {row.warmed[1].hi:.1f} min" if row.warmed else ""


def tester_words(row: Proof) -> str:
    """Say by which instrument: its number and the date of its calibration, where they are stated."""
    event = row.event
    meter = event.instrument if event else row.reading.meter if row.reading else None
    if meter is None:
        return ""
    serial = (event.serial if event else "") or meter.serial
    calibrated = (event.calibrated if event else "") or meter.calibrated
    named = (meter.title, f"no. {serial}" if serial else "", f"calibrated {calibrated}" if calibrated else "")
    return ", ".join(word for word in named if word)


def shown_by_words(row: Proof) -> str:
    """Say by which method, or from what to what water was warmed."""
    if row.warmed:
        rise, _ = row.warmed
        return f"{rise.litres:g} litres from {rise.from_celsius:g} to {rise.to_celsius:g} °C"
    return row.event.way.value if row.event and row.event.way else ""


def limit_words(row: Proof) -> str:
    """Return what it is held to, in print."""
    return row.criterion.window.shown if row.criterion.window else computed_words(row)


def state_of(row: Proof) -> Literal["not_shown", "good", "bad"]:
    """Return how a criterion stands."""
    return "not_shown" if row.is_good is None else "good" if row.is_good else "bad"
