"""What happens on a job, written down."""
