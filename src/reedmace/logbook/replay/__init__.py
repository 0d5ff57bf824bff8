"""From entries to state: entry kinds, the replay, arrival, equipment and measured flows."""
