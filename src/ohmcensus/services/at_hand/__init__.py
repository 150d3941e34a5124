"""What every room works with: the store and the clock, a job turned into a case, sheets, settings, meters."""
