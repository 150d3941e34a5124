"""Limits of a firm or of a standard, and the terms that a case is held to."""
