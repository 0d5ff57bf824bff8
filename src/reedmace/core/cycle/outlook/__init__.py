"""What lies ahead: the forecast, its history, what-if changes, and what will stall."""
