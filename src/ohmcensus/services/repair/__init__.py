"""Repair: strip-down, changes and the runs after them, what each way to go on costs."""
