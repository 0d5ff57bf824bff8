"""The parts a filter kind is described with: traits, media path, steps, cleaning, placement, limits, and the record
itself.
"""
