"""Open formats in and out. Text in, values out, and back; no files are opened here."""
