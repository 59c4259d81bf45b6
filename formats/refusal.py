"""What is said of a file, or of what should go into one, that cannot be read or made."""

from conduit.catalogue import Message


class Refusal(Exception):
    """It cannot be done; `says` tells why."""

    def __init__(self, says: Message) -> None:
        super().__init__(says)
        self.says = says
