"""Every sentence: numbers, codes read aloud, names of flags, plain words."""
