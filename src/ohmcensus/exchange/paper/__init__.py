"""What goes out on paper: the job sheet with the customer's page, and the label."""
