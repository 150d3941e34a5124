"""Readings: understood while typed, logged, taken back, told as the trace and on the ladder."""
