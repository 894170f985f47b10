"""When a shop works: shifts, breaks, hours without people and days off, and where so many minutes of work end."""
