"""Operations: install, build, start, test. Standard library only: it runs before anything is installed."""
