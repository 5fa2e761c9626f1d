"""Rules of the foot."""
