"""A database that stalls: found within two seconds, and nobody waits for it any longer.

A stalled database answers neither what was asked nor that it will not; a driver's own patience must be longer than any
honest query on a slow machine. So what takes long has another connection ask whether the database answers at all; only
where that does not either, those that wait for it are cut.
"""

import os
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from socket import SHUT_RDWR, socket
from threading import Event, Lock, Thread, get_ident
from time import monotonic, sleep
from typing import Any

from django.db import OperationalError, connection, connections
from django.db.backends.signals import connection_created

# Seconds: what is under way so long is looked into, every so often; and how long an answer may take then.
LONG, A_LOOK, FOR_AN_ANSWER = 0.6, 0.2, 1
# The driver's numbers for a server that cannot be reached, or says nothing.
SILENT = (2002, 2003, 2006, 2013)


class Silence:
    """How long the database is left alone after it was found silent, or gone."""

    def __init__(self) -> None:
        self.until = 0.0

    def begin(self, seconds: float) -> None:
        """From now on."""
        self.until = monotonic() + seconds

    def end(self) -> None:
        """It may be asked again."""
        self.until = 0.0

    def lasts(self) -> bool:
        """Whether it is not asked yet."""
        return monotonic() < self.until


silence = Silence()


@dataclass
class UnderWay:
    """A request: since when, and a second hold of the wire to the database, so that no other can be cut for it."""

    began: float
    wire: socket | None = None

    def hold(self, driver: Any) -> None:
        """Hold the wire of a connection of the driver, which lets only the thread that uses it ask for that."""
        self.let_go()
        self.wire = socket(fileno=os.dup(driver.fileno()))

    def let_go(self) -> None:
        """Hold it no longer."""
        if self.wire:
            self.wire.close()


class Stalls:
    """Watches requests that are under way in this process, in a thread that sleeps while there are none."""

    def __init__(self, on_stall: Callable[[], None]) -> None:
        self.on_stall = on_stall
        self.inside = dict[int, UnderWay]()
        self.some, self.beginning = Event(), Lock()
        self.thread: Thread | None = None
        connection_created.connect(self._connected)

    def enter(self) -> None:
        """A request of this thread begins."""
        one = self.inside[get_ident()] = UnderWay(monotonic())
        if connection.connection is not None:
            one.hold(connection.connection)
        with self.beginning:
            # Of a process that was made from this one the thread is not there.
            if not self.thread or not self.thread.is_alive():
                self.thread = Thread(target=self._watch, name="stalls", daemon=True)
                self.thread.start()
        self.some.set()

    def leave(self) -> None:
        """It is done."""
        self.inside.pop(get_ident()).let_go()

    def _connected(self, connection: Any, **more: Any) -> None:
        if one := self.inside.get(get_ident()):
            one.hold(connection.connection)

    def _watch(self) -> None:
        while self.some.wait():
            sleep(A_LOOK)
            if not self.inside:
                self.some.clear()
            elif any(monotonic() - one.began > LONG for one in list(self.inside.values())) and not answers():
                self.on_stall()
                self._cut()

    def _cut(self) -> None:
        """End the waiting of all that were under way before it was asked."""
        for one in list(self.inside.values()):
            if one.wire and monotonic() - one.began > FOR_AN_ANSWER:
                # What is done meanwhile holds nothing any more.
                with suppress(OSError):
                    one.wire.shutdown(SHUT_RDWR)


def answers() -> bool:
    """Whether the database says anything to another connection within a second; that it has too many is something."""
    wrapper: Any = connections.create_connection("default")
    limits = {f"{what}_timeout": FOR_AN_ANSWER for what in ("connect", "read", "write")}
    try:
        wrapper.get_new_connection({**wrapper.get_connection_params(), **limits}).close()
    except (wrapper.Database.Error, OperationalError) as error:
        return not (error.args and error.args[0] in SILENT)
    return True
