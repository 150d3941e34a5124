"""Setup: settings, meters, the address book."""
