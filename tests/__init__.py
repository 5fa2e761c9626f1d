"""Machines that run these tests are shared and noisy: nothing may fail by the clock.

Property tests see new cases at every run. The seed is told, and NORTH_STRIDE_TEST_SEED brings it back;
what failed is kept under .hypothesis and tried first the next time.
"""

import os
from pathlib import Path

from hypothesis import HealthCheck, core, settings
from hypothesis.database import DirectoryBasedExampleDatabase

SEED = "NORTH_STRIDE_TEST_SEED"

settings.register_profile(
    "shared",
    # Said in full: where the variable CI is set, hypothesis keeps nothing and shows the same cases each time.
    derandomize=False,
    database=DirectoryBasedExampleDatabase(Path(__file__).parent.parent / ".hypothesis" / "examples"),
    deadline=None,
    print_blob=True,
    # A mutation run calls each test more than once in a process.
    suppress_health_check=[
        HealthCheck.too_slow,
        HealthCheck.filter_too_much,
        HealthCheck.differing_executors,
    ],
)
settings.load_profile("shared")
if SEED in os.environ:
    setattr(core, "global_force_seed", int(os.environ[SEED]))  # noqa: B010  its type knows None alone
