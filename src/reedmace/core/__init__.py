"""Domain rules and computations. Pure functions: no interface, database, clock, file writes or network.

Everything here takes what it needs as arguments (the time too) and returns an answer with its working.
"""
