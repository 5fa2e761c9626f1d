"""Which tests, in which order: safety first, then the story's, with the fewest turns."""

from northstride.core.route.stops import Offer, Route, Stop, make_route, plan_for, planned_with
from northstride.core.route.wanted import HeldSide, LeftOut, Stage, Wanted

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
