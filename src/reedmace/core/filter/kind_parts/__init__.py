"""The parts a filter kind is described with.

Traits, media path, steps, cleaning, placement, limits, and the record itself.
"""
