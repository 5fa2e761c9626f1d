"""Days: what opens, runs out, is arranged and is due."""
