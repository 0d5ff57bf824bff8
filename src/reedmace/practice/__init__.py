"""Practice: a logbook on a simulated tank with a clock of its own, lessons on it, and the page at their end."""
