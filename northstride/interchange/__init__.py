"""What leaves for people and other programs, one format a file. Knows no database and no HTTP."""
