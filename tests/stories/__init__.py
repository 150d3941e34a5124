"""Stories of safety: every row of the table, and for every danger one that lifts it and ends in power and a signature."""
