"""Suspects: what may be wrong, what every observation says of it, and what to ask next."""
