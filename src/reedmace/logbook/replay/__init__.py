"""Replay of a logbook: entry kinds, the state they lead to, arrival, equipment and measured flows."""
