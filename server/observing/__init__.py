"""How the server is watched: health and readiness, a request's number, one line a request in the log, metrics."""
