"""Which tests, in which order: safety first, then the story's, with the fewest turns."""

from northstride.core.following.route.asking import LeftOut, Wanted
from northstride.core.following.route.making import Route, Stop, make_route, plan_for

__all__ = ["LeftOut", "Route", "Stop", "Wanted", "make_route", "plan_for"]
