"""Jobs and stories in and out of files."""
