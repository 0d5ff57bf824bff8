"""The rules and the computation. Pure: no interface, no database, no clock, no files written, no network.

Everything here takes what it needs as arguments (the time too) and returns an answer with its working.
"""
