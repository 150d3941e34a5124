"""Migrations, run by the migration tool."""
