"""What goes out: the job sheet, the label, costs, what was signed."""
