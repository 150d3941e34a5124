"""Run every attack and print its figures."""

from benchmarks.harsh import damage, hands, kills

kills.main()
damage.main()
hands.main()
