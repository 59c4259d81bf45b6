"""The headless commands: files and standard input in, plans out."""
