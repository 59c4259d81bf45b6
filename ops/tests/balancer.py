"""A balancer as stands before several servers: each connection goes to the next one that takes it."""

import socket
from itertools import cycle
from threading import Thread


class Balancer:
    """One on loopback; it pipes bytes, and knows no HTTP."""

    def __init__(self, ports):
        self.ports, self.turns = ports, cycle(range(len(ports)))
        self.taken = dict.fromkeys(ports, 0)
        self.listening = socket.create_server(("127.0.0.1", 0))
        self.address = f"http://127.0.0.1:{self.listening.getsockname()[1]}/"
        Thread(target=self._listen, daemon=True).start()

    def close(self):
        self.listening.close()

    def _listen(self):
        while True:
            try:
                came, _ = self.listening.accept()
            except OSError:
                return
            Thread(target=self._serve, args=(came,), daemon=True).start()

    def _serve(self, came):
        first = next(self.turns)
        for port in [*self.ports[first:], *self.ports[:first]]:
            try:
                behind = socket.create_connection(("127.0.0.1", port), timeout=30)
            except ConnectionRefusedError:
                continue
            self.taken[port] += 1
            Thread(target=_pipe, args=(came, behind), daemon=True).start()
            _pipe(behind, came)
            return
        came.close()


def _pipe(one, other):
    try:
        while part := one.recv(65536):
            other.sendall(part)
        other.shutdown(socket.SHUT_WR)
    except OSError:
        other.close()
