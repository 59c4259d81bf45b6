"""The test runner: Django's, with one plain closing line that people and machines can read."""

import os
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


class Runner(DiscoverRunner):
    """Django's runner; after its own summary it says how many passed, failed and were skipped."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        """Passwords are hashed quickly: hundreds of people sign in, and none of them is real."""
        super().setup_test_environment(**kwargs)
        settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the closing line and return the number of failures, as Django does."""
        failed = len(result.failures) + len(result.errors) + len(getattr(result, "unexpectedSuccesses", []))
        skipped = len(result.skipped)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped", flush=True)
        return super().suite_result(suite, result, **kwargs)
