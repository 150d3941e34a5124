"""Where a job stands: its stages, and the one thing to do next."""
