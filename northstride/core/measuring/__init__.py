"""Numbers: trials, error, angles and dials, agreement. Knows no examination."""
