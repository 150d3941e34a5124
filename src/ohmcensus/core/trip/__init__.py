"""Which part leaks: proved bounds from runs with parts connected in groups, and which plug to pull next."""
