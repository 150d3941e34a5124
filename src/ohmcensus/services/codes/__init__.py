"""Codes: lamp patterns, entry sequences, test cycles."""
