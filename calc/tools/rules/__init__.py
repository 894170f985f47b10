"""What speaks for and against the tools of a cut: a book of rules for each kind of cut; weights typical."""
