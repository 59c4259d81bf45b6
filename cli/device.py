"""`crelda device [PORT] [SEED]`: measuring devices and a label printer, made up, for whoever is at this machine.

Speaks the protocol of `docs/devices.md` over a WebSocket on loopback. It reads when the page asks it to, and at its own
button: Enter here. Exit 0: stopped. 2: the port is taken.
"""

import json
import random
import sys
import threading
from collections.abc import Iterator
from typing import Any

from websockets.exceptions import ConnectionClosed
from websockets.sync.server import ServerConnection, serve

from conduit.units import MM_PER_INCH

HOST, PORT, SEED = "127.0.0.1", 8427, 27
# Millimetres: how far the made-up laser trembles (standard deviation), how long it is, and between what it measures.
TREMBLE, BODY = 0.8, 108.0
SHORTEST, LONGEST = 250.0, 2500.0
# Degrees: what pipe springs back of a bend, and how far hands and finder miss (standard deviation).
SPRUNG, MISSED = 0.992, 0.35
# One reading in so many hits something else, so far behind.
ONE_BAD_IN, BAD_BY = 15, 180.0
LARGEST = 2000


class Devices:
    """A laser that is read from its front, an angle finder, and a printer that prints here; by a seed the same."""

    def __init__(self, seed: int) -> None:
        self.luck = random.Random(seed)
        self.open = set[ServerConnection]()

    def angle(self, found: float | None = None) -> dict[str, Any]:
        """What the finder shows of a bend that was made to so many degrees, or to 90."""
        value = SPRUNG * (90.0 if found is None else found) + self.luck.gauss(0, MISSED)
        return {"type": "reading", "measures": "angle", "value": round(value, 1), "unit": "deg", "confidence": 1.0}

    def length(self, found: float | None = None) -> dict[str, Any]:
        """What the laser reads of what lies so far away, in millimetres; of something, where that is not said."""
        far = self.luck.uniform(SHORTEST, LONGEST) if found is None else found
        is_bad = self.luck.random() < 1 / ONE_BAD_IN
        value = far - BODY + self.luck.gauss(0, TREMBLE) + (BAD_BY if is_bad else 0)
        told = {"type": "reading", "measures": "length", "value": round(value, 1), "unit": "mm", "body": BODY}
        return {**told, "confidence": 0.3 if is_bad else 0.95}

    def answers(self, text: str | bytes) -> Iterator[dict[str, Any]]:
        """What a message of the page is answered with."""
        try:
            message = json.loads(text)
            kind = message["type"]
        except (ValueError, TypeError, KeyError):
            yield {"type": "error", "says": "not a message of the protocol"}
            return
        if kind == "read":
            found = message.get("found")
            read = self.angle if message.get("measures") == "angle" else self.length
            yield read(float(found) if isinstance(found, int | float) else None)
        elif kind == "print":
            print("  ".join(str(line) for line in message.get("lines", [])), flush=True)
            yield {"type": "printed"}
        else:
            yield {"type": "error", "says": f"no {str(kind)[:40]} here"}

    def serve(self, connection: ServerConnection) -> None:
        """Answer a page until it goes."""
        self.open.add(connection)
        try:
            for text in connection:
                for answer in self.answers(text):
                    connection.send(json.dumps(answer))
        except ConnectionClosed:
            pass
        finally:
            self.open.discard(connection)

    def press(self) -> None:
        """The laser's own button: every page that listens is told."""
        reading = self.length()
        print(f"read {reading['value'] / MM_PER_INCH:.2f} in", flush=True)
        for connection in list(self.open):
            connection.send(json.dumps(reading))


def main(arguments: list[str]) -> int:
    """Serve until interrupted."""
    port, seed = [int(one) for one in (*arguments, *[str(PORT), str(SEED)][len(arguments) :])][:2]
    devices = Devices(seed)
    try:
        server = serve(devices.serve, HOST, port, max_size=LARGEST)
    except OSError as error:
        print(f"crelda device: {error.strerror or error}", file=sys.stderr)
        return 2
    print(f"ws://{HOST}:{port}/  (Enter: the laser's own button; Ctrl-C stops it)", flush=True)
    threading.Thread(target=_buttons, args=(devices,), daemon=True).start()
    try:
        server.serve_forever()
    except KeyboardInterrupt:
        server.shutdown()
    return 0


def _buttons(devices: Devices) -> None:
    for _ in sys.stdin:
        devices.press()


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
