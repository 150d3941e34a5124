"""Photos of a job."""
