"""Exercises with a hidden fault: a world that knows nothing of how it will be searched."""
