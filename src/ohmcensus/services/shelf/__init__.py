"""Parts wanted and the shelf of spares."""
