"""Safe: the steps, the points of the proof, the dangers."""
