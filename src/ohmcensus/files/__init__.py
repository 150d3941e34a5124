"""Files on a disk that may fail: written whole, flushed, and unpacked only once they were looked at."""
