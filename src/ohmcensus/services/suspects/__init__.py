"""Suspects, and what to ask next."""
