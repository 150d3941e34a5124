"""``python -m ohmcensus``."""

from ohmcensus.cli import main

main()
