"""What follows from a reading: what next, the route, change, return, evidence, plain words."""
