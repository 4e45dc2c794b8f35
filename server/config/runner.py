"""Django's test runner with a closing line that says how many tests passed."""

from typing import Any

from django.test.runner import DiscoverRunner


class Runner(DiscoverRunner):
    """DiscoverRunner that prints 'N passed, N failed'."""

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the counts and return the number of failures."""
        failed = super().suite_result(suite, result, **kwargs)
        skipped = len(result.skipped)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped", flush=True)
        return failed
