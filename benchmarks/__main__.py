"""Run every benchmark and print its figures."""

from benchmarks import circuit_speed, diagnosis_truth, dictionary_speed, slice_speed, trip_truth

slice_speed.main()
circuit_speed.main()
dictionary_speed.main()
trip_truth.main()
diagnosis_truth.main()
