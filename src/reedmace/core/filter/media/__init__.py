"""Filter media: one basket, and the stack of them in a filter."""
