"""What is thrown away in time, so that the database grows with the work and not with the years."""
