"""Management commands of the demo."""
