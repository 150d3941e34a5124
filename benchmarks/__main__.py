"""Run every benchmark and print its figures."""

from benchmarks import (
    circuit_speed,
    diagnosis_truth,
    dictionary_speed,
    growth,
    replay_speed,
    safety_truth,
    slice_speed,
    trip_truth,
)
from benchmarks.world.__main__ import bench as world_truth

slice_speed.main()
growth.main()
circuit_speed.main()
dictionary_speed.main()
replay_speed.main()
trip_truth.main()
diagnosis_truth.main()
safety_truth.main()
world_truth()
