"""A crew's benders."""
