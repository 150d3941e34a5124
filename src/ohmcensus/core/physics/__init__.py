"""Laws of nature and of the handbook, one a module, on bare floats whose names carry their units."""
