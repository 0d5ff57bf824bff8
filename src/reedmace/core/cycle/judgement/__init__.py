"""Verdicts on a cycle: readiness, plan conditions, methods, stalls, filter stops, the standby trial, cloudy water."""
