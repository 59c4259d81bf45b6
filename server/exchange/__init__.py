"""What leaves for other programs: a run or a job asked for as a file, made in the background, fetched by who asked."""
