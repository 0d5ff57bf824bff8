"""The nitrogen model: the compiled kernel, its inputs from a log, and the weighted ensemble."""
