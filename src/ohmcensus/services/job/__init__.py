"""Jobs: open, list, at a glance, what changed; what every room shows of its job."""
