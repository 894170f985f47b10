"""Starting tables, one file each, with its source."""
