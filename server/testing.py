"""The test runner: Django's, with one plain closing line that people and machines can read."""

import os
import time
import unittest
from typing import Any

import hypothesis
from django.conf import settings
from django.test.runner import DiscoverRunner

# No test is a timed test: how fast things are is measured in `crelda bench`.
# Random runs that cannot be made are passed over, and on a busy machine all is slow: neither is a fault. In
# continuous integration the examples are the same each time, so that a change is judged by itself.
hypothesis.settings.register_profile(
    "crelda",
    deadline=None,
    derandomize="CI" in os.environ,
    suppress_health_check=[hypothesis.HealthCheck.too_slow, hypothesis.HealthCheck.filter_too_much],
)
hypothesis.settings.load_profile("crelda")


SLOWEST = 6


class Timed(unittest.TextTestResult):
    """Remembers how long each test took."""

    def __init__(self, *given: Any, **more: Any) -> None:
        super().__init__(*given, **more)
        self.took = dict[str, float]()
        self.began = 0.0

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (unittest's name)
        """Begin one."""
        self.began = time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802 (unittest's name)
        """End one."""
        super().stopTest(test)
        self.took[test.id()] = time.monotonic() - self.began


class Runner(DiscoverRunner):
    """Django's runner; after its own summary it says what was slow, and how many passed, failed and were skipped."""

    def get_resultclass(self) -> type[unittest.TextTestResult]:
        """One that takes the time."""
        return Timed

    def setup_test_environment(self, **kwargs: Any) -> None:
        """Passwords are hashed quickly: hundreds of people sign in, and none of them is real."""
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the closing line and return the number of failures, as Django does."""
        failed = len(result.failures) + len(result.errors) + len(getattr(result, "unexpectedSuccesses", []))
        skipped = len(result.skipped)
        for name, seconds in sorted(result.took.items(), key=lambda one: -one[1])[:SLOWEST]:
            print(f"{seconds:6.1f} s  {name}", flush=True)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped", flush=True)
        return super().suite_result(suite, result, **kwargs)
