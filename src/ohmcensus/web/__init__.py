"""The HTTP face: one blueprint per resource, problem+json errors, the built interface."""
