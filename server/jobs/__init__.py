"""Jobs, their runs as measured, and every saved revision."""
