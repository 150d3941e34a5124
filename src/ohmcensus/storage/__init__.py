"""Storage: tables on SQLite, one repository per aggregate, migrations."""
