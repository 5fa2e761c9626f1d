"""Machines that run these tests are shared and noisy: nothing may fail by the clock.

Property tests see new cases at every run. The seed is told, and NORTH_STRIDE_TEST_SEED brings it back;
what failed is kept under .hypothesis and tried first the next time.
"""

import os

from hypothesis import HealthCheck, core, settings

SEED = "NORTH_STRIDE_TEST_SEED"

settings.register_profile(
    "shared",
    deadline=None,
    print_blob=True,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much],
)
settings.load_profile("shared")
if SEED in os.environ:
    setattr(core, "global_force_seed", int(os.environ[SEED]))  # noqa: B010  its type knows None alone
