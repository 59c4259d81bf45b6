"""A web process whose threads get whole requests.

What comes slowly, or never, is waited for by the one loop that waits for all connections, and holds no thread: thirty
half-sent requests would otherwise stop a server that no proxy stands before.
"""

import re
import time
from contextlib import suppress
from functools import partial
from selectors import EVENT_READ
from socket import socket
from typing import Any

from gunicorn import http
from gunicorn.workers.gthread import TConn, ThreadWorker

KB = 1024
# Seconds for the head of a request, and for all of it.
FOR_HEAD, FOR_ALL, WHILE_STOPPING = 10.0, 120.0, 2.0
LARGEST_HEAD = 64 * KB
# A larger body is refused by its length, before it is read; no operation takes one.
LARGEST_BODY = 4 * KB * KB
# Of all that has come of requests that are not whole yet, in this process.
MOST_HELD = 64 * KB * KB
A_READ = 64 * KB
LENGTH = re.compile(rb"\r\ncontent-length:[ \t]*(\d{1,18})[ \t]*\r\n", re.I)
CHUNKED = re.compile(rb"\r\ntransfer-encoding:", re.I)
EXPECTS = re.compile(rb"\r\nexpect:[ \t]*100-continue[ \t]*\r\n", re.I)
GO_ON = b"HTTP/1.1 100 Continue\r\n\r\n"


class Refusal(Exception):
    """A request that is not waited for any longer; says with which status it is answered."""


class Coming:
    """What has come of a request."""

    def __init__(self, already: bytes) -> None:
        self.data = bytearray(already)
        self.began = time.monotonic()
        self.searched = self.head = 0
        self.told_to_go_on = False

    def is_whole(self) -> bool:
        """Whether all of it is there. Raises Refusal for what is too long, or does not say how long it is."""
        if not self.head:
            found = self.data.find(b"\r\n\r\n", max(0, self.searched - 3))
            self.searched = len(self.data)
            if found < 0 and len(self.data) > LARGEST_HEAD:
                raise Refusal("431 Request Header Fields Too Large")
            self.head = found + 4 if found >= 0 else 0
        if not self.head:
            return False
        if CHUNKED.search(self.data, 0, self.head):
            raise Refusal("411 Length Required")
        length = LENGTH.search(self.data, 0, self.head)
        most = int(length[1]) if length else 0
        return most > LARGEST_BODY or len(self.data) >= self.head + most

    def may_be_told_to_go_on(self) -> bool:
        """Whether its sender waits to be told before the body is sent; true once."""
        if self.told_to_go_on or not self.head or not EXPECTS.search(self.data, 0, self.head):
            return False
        self.told_to_go_on = True
        return True

    def is_late(self, now: float, *, stopping: bool) -> bool:
        """Whether it took longer than anybody needs."""
        patience = WHILE_STOPPING if stopping else FOR_ALL if self.head else FOR_HEAD
        return now - self.began > patience


class WholeRequests(ThreadWorker):  # type: ignore[misc]
    """Gunicorn's worker with threads; the loop that accepts connections also reads their requests."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self.coming = dict[TConn, Coming]()

    def enqueue_req(self, conn: TConn) -> None:
        """Give a connection to a thread once a whole request is there; until then wait for more of it."""
        coming = self.coming.get(conn)
        if not coming:
            coming = Coming(conn.parser.unreader.take_buffered() if conn.parser else b"")
            self.coming[conn] = coming
        conn.sock.setblocking(False)
        try:
            is_open = _read(conn.sock, coming.data)
            if coming.is_whole():
                self._hand_over(conn)
            elif not is_open:
                self._leave(conn)
            else:
                self._wait_for_more(conn, coming)
        except Refusal as refusal:
            self._leave(conn, str(refusal))
        except OSError:
            self._leave(conn)

    def _hand_over(self, conn: TConn) -> None:
        coming = self.coming.pop(conn)
        if conn.parser is None:
            conn.parser = http.get_parser(self.cfg, conn.sock, conn.client)
        conn.parser.unreader.unread(bytes(coming.data))
        conn.data_ready = True
        super().enqueue_req(conn)

    def _wait_for_more(self, conn: TConn, coming: Coming) -> None:
        if sum(len(one.data) for one in self.coming.values()) > MOST_HELD:
            raise Refusal("503 Service Unavailable")
        if coming.may_be_told_to_go_on():
            conn.sock.send(GO_ON)
        self.poller.register(conn.sock, EVENT_READ, partial(self._more, conn))

    def _more(self, conn: TConn, client: socket) -> None:
        self.poller.unregister(client)
        self.enqueue_req(conn)

    def murder_pending(self) -> None:
        """Leave connections on which nothing whole came for too long."""
        super().murder_pending()
        now = time.monotonic()
        for conn in [one for one, coming in self.coming.items() if coming.is_late(now, stopping=not self.alive)]:
            self.poller.unregister(conn.sock)
            self._leave(conn, "408 Request Timeout")

    def _leave(self, conn: TConn, status: str = "") -> None:
        had = self.coming.pop(conn)
        self.nr_conns -= 1
        with suppress(OSError):
            if status and had.data:
                conn.sock.send(f"HTTP/1.1 {status}\r\nConnection: close\r\nContent-Length: 0\r\n\r\n".encode())
        conn.close()


def _read(sock: socket, into: bytearray) -> bool:
    """Take what has come; whether more may come."""
    while len(into) <= LARGEST_HEAD + LARGEST_BODY:
        try:
            part = sock.recv(A_READ)
        except BlockingIOError:
            return True
        if not part:
            return False
        into += part
    return True
