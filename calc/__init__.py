"""The trade's computation: pure Python, no web, no database, no I/O beyond its own data files."""
