"""Text as people write it: trimmed, and names that were meant."""
