"""Animals in the water: the day plan, the emergency plan, illness and the stocking ramp."""
