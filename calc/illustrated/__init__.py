"""What shows a calculator at work: an example of each, and the pictures of their answers."""
