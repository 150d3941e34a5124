"""Stories of safety: every row of the table, and for every danger one that lifts it, to power and a signature."""
