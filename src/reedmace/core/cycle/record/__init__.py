"""The record of a cycling tank: log, test lines, suspect readings, film losses, proof, targets, present water."""
