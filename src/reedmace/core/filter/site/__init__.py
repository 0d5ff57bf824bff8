"""Where a filter stands: the tank, its surroundings, the plumbing, and noise."""
