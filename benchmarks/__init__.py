"""Speed and truth, side by side with something outside in the same run: ``make bench``."""
