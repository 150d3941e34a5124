"""Proof after repair."""
