"""The clinic, its users, athletes and squads."""
