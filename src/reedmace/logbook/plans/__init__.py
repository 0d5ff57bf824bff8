"""The plans of a tank and of a fish room, and the differences between two versions."""
