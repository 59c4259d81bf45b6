"""The log: one JSON object a line, with the number of the request. Never a secret or a person's text.

Of an exception it says the kind and where it was raised; what it says may be what somebody typed.
"""

import logging
from contextvars import ContextVar
from traceback import extract_tb
from typing import Any

from pythonjsonlogger.json import JsonFormatter

request_number: ContextVar[str] = ContextVar("request_number", default="")
# Their sentences have addresses in them, which may be one-time links.
NOT_IN_THEIR_WORDS = {"django.request": "unhandled error", "django.security": "refused by the framework"}
LAST_FRAMES = 24


class Formatter(JsonFormatter):
    """Lines with time, level, logger and the request's number."""

    def __init__(self) -> None:
        super().__init__("%(message)s", rename_fields={"message": "event"})

    def add_fields(self, log_data: dict[str, Any], record: logging.LogRecord, message_dict: dict[str, Any]) -> None:
        """What each line has."""
        super().add_fields(log_data, record, message_dict)
        for name, words in NOT_IN_THEIR_WORDS.items():
            if record.name.startswith(name):
                log_data["event"] = words
        for key in ("request", "exc_info", "exc_text"):
            log_data.pop(key, None)
        log_data["at"] = self.formatTime(record, "%Y-%m-%dT%H:%M:%S") + f".{int(record.msecs):03}Z"
        log_data["level"], log_data["logger"] = record.levelname.lower(), record.name
        if number := request_number.get():
            log_data["request_id"] = number
        if record.exc_info and record.exc_info[1]:
            log_data |= told(record.exc_info[1])


def is_fault(record: logging.LogRecord) -> bool:
    """Whether an answer is a fault of ours; that the server is busy or waits for its database is none."""
    return getattr(record, "status_code", 500) != 503


def told(error: BaseException) -> dict[str, Any]:
    """An exception without its words: its kind, that of its cause, and where it was raised."""
    frames = extract_tb(error.__traceback__)[-LAST_FRAMES:]
    says: dict[str, Any] = {"error": type(error).__qualname__, "where": [f"{f.filename}:{f.lineno}" for f in frames]}
    if error.__cause__:
        says["cause"] = type(error.__cause__).__qualname__
    return says


def settings_for(level: str) -> dict[str, Any]:
    """Django's LOGGING. What a client did wrong is told to the client; the log is for what we did wrong."""
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {"line": {"()": Formatter}},
        "filters": {"fault": {"()": "django.utils.log.CallbackFilter", "callback": is_fault}},
        "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
        "root": {"handlers": ["console"], "level": "WARNING"},
        "loggers": {
            **{name: {"level": "ERROR"} for name in ("django.security", "axes")},
            "django.request": {"level": "ERROR", "filters": ["fault"]},
            "crelda": {"level": level.upper()},
        },
    }
