"""Ohmcensus: fault tracing for household washers."""
