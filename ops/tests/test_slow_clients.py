"""Who sends slowly, or never, takes nobody's place: the server has no proxy before it here."""

import os
import socket
import time
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack
from unittest import TestCase

from ops.children import free_port, start, stop
from ops.environment import server_environment
from ops.paths import LOGS
from ops.tests.support import running_database
from ops.up import gunicorn, wait_until_it_answers
from server.whole_requests import FOR_HEAD

LOG = LOGS / "slow-clients.log"
HEAD = b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
BODY = b'{"username": "nobody", "password": "x"}'
WITH_LENGTH = HEAD + b"Content-Length: %d\r\n" % len(BODY)


class SlowClients(TestCase):
    @classmethod
    def setUpClass(cls):
        database = cls.enterClassContext(running_database("slow-clients-db"))
        cls.port = free_port()
        env = {**os.environ, **server_environment(database.url), "CRELDA_WORKERS": "2", "CRELDA_PORT": str(cls.port)}
        server = start(gunicorn(), LOG, env)
        cls.addClassCleanup(stop, server)
        wait_until_it_answers("127.0.0.1", cls.port, server, LOG)

    def sending(self, begun):
        """A connection on which so much was sent, and no more."""
        client = socket.create_connection(("127.0.0.1", self.port), timeout=60)
        client.sendall(begun)
        return client

    def asked(self, path="/"):
        began = time.monotonic()
        with urllib.request.urlopen(f"http://127.0.0.1:{self.port}{path}", timeout=60) as answer:
            self.assertEqual(answer.status, 200)
        return time.monotonic() - began

    def test_half_sent_requests_keep_nobody_waiting_and_are_left_after_a_while(self):
        begun = (b"", b"GE", HEAD, WITH_LENGTH + b"\r\n" + BODY[:5])
        with ExitStack() as open_ones:
            idle = [open_ones.enter_context(self.sending(begun[number % 4])) for number in range(120)]
            time.sleep(1)
            with ThreadPoolExecutor(8) as crowd:
                self.assertLess(max(crowd.map(lambda _: self.asked("/healthz"), range(40))), FOR_HEAD / 2)
            self.assertRegex(idle[2].recv(100), rb"^HTTP/1.1 408 ")
            self.assertEqual(idle[0].recv(100), b"")
            # Its head was whole: for the rest it has longer.
            idle[3].sendall(BODY[5:])
            self.assertRegex(idle[3].recv(100), rb"^HTTP/1.1 40[13] ")

    def test_what_comes_letter_by_letter_is_answered(self):
        with self.sending(b"") as client:
            for letter in WITH_LENGTH + b"\r\n" + BODY:
                client.sendall(bytes([letter]))
                time.sleep(0.005)
            self.assertRegex(client.recv(100), rb"^HTTP/1.1 40[13] ")

    def test_several_on_one_connection_are_answered_in_their_order(self):
        ask = b"GET /healthz HTTP/1.1\r\nHost: 127.0.0.1\r\n%s\r\n"
        with self.sending(ask % b"" + ask % b"" + ask % b"Connection: close\r\n") as client:
            said = b""
            while part := client.recv(4096):
                said += part
        self.assertEqual(said.count(b"HTTP/1.1 200 OK"), 3)

    def test_what_does_not_say_how_long_it_is_or_is_too_long_is_refused_at_once(self):
        for begun, status in (
            (HEAD + b"Transfer-Encoding: chunked\r\n\r\n5\r\n", b"411"),
            (HEAD + b"X: " + b"x" * 70_000, b"431"),
            (HEAD + b"Content-Length: 99999999\r\n\r\n{", b"413"),
        ):
            with self.subTest(status), self.sending(begun) as client:
                self.assertEqual(client.recv(12)[9:], status)

    def test_who_waits_to_be_told_to_go_on_is_told(self):
        with self.sending(WITH_LENGTH + b"Expect: 100-continue\r\n\r\n") as client:
            self.assertRegex(client.recv(100), rb"^HTTP/1.1 100 Continue")
            client.sendall(BODY)
            said = client.recv(4096)
            self.assertRegex(said.replace(b"HTTP/1.1 100 Continue\r\n\r\n", b""), rb"^(HTTP/1.1 40[13] |$)")
