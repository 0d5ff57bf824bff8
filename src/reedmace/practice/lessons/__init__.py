"""The lessons, a file each."""
