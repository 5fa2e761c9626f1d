"""What the rules make of an examination: danger first, then gates, then what is not held."""
