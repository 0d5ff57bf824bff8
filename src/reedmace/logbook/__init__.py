"""History of a tank: plans, the replay of entries to a state, care, stage views, fish rooms. No input or output."""
