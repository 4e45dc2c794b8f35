"""Django's test runner with a closing line that says how many tests passed."""

import tempfile
from pathlib import Path
from typing import Any

from django.db import connections
from django.test.runner import DiscoverRunner
from hypothesis import settings as generated


class Runner(DiscoverRunner):
    """DiscoverRunner that prints 'N passed, N failed', on a database in a file: in memory the threads of a live server
    would share one connection, and one's transaction would end another's.
    """

    def setup_databases(self, **kwargs: Any) -> Any:
        self._folder = tempfile.TemporaryDirectory(prefix="pendrum-test-")
        settings = connections["default"].settings_dict
        if connections["default"].vendor == "sqlite":
            settings["TEST"]["NAME"] = str(Path(self._folder.name) / "test.sqlite3")
        return super().setup_databases(**kwargs)

    def teardown_databases(self, old_config: Any, **kwargs: Any) -> None:
        super().teardown_databases(old_config, **kwargs)
        self._folder.cleanup()

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        """Print the counts and return the number of failures."""
        failed = super().suite_result(suite, result, **kwargs)
        skipped = len(result.skipped)
        print(f"{result.testsRun - failed - skipped} passed, {failed} failed, {skipped} skipped", flush=True)
        return failed


# A machine that is busy makes no test of chosen examples fail.
generated.register_profile("patient", deadline=None)
generated.load_profile("patient")
