"""Which tests, in which order: safety first, then the story's, with the fewest turns."""

from northstride.core.route.selection import HeldSide, LeftOut, Stage, Wanted
from northstride.core.route.stops import Offer, Route, Stop, make_route, plan_for, planned_with

__all__ = [
    "HeldSide",
    "LeftOut",
    "Offer",
    "Route",
    "Stage",
    "Stop",
    "Wanted",
    "make_route",
    "plan_for",
    "planned_with",
]
