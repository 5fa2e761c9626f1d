"""Machines that run these tests are shared and noisy: nothing may fail by the clock or by chance."""

from hypothesis import HealthCheck, settings

settings.register_profile(
    "shared", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("shared")
