"""Pure computation: numbers, tests, rules. No database, no HTTP, no files but its own data, no clock."""
