"""The clinic with its days, its athletes and squads."""
