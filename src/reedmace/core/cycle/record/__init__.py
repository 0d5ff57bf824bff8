"""What is known of a cycling tank: its log, test lines, suspect readings, film losses, proof, targets, the water now."""
