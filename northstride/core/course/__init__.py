"""One athlete over time: change, lines, and the way back to sport."""
