"""Couplings, sources and the cut list."""
