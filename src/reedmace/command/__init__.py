"""What ./reedmace runs."""
