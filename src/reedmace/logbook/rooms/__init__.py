"""Fish rooms: the board of many tanks, their shared sump, and the snapshot of one tank."""
