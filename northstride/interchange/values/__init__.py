"""Values as tables: a row a value, or a row an athlete; out, and in with a mapping."""
