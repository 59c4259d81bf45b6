"""Demo data: a pottery studio's kiln room being fitted out."""
