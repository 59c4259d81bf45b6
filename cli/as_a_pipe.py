"""Ending as a program in a pipe does: where nobody reads on, silently and by the signal for it."""

import signal


def end_with_the_reader() -> None:
    """From now on `… | head` ends us as it ends any other program, with no word and no exit code of ours."""
    signal.signal(signal.SIGPIPE, signal.SIG_DFL)
