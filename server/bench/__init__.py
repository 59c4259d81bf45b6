"""Sticks at the bench, the bends made on them, and what the crew's shoes learn from that."""
