"""Run every benchmark and print its figures."""

from benchmarks import slice_speed

slice_speed.main()
