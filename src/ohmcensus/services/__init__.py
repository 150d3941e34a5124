"""Use cases, one a module, named by a verb. Each takes a ``Context`` and plain input, and returns a view or a value."""
