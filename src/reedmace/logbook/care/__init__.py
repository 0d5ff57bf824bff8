"""Care of a running tank, from its logbook: due dates, stops, quarantine, illness, supplies, costs."""
