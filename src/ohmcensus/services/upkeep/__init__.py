"""Looking after the store: checks, backups, what can be worked out beside the answers."""
