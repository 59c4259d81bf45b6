"""The Django server: apps, one API, and the built front end."""
