"""The open screening record: strict models, JSON Schema, reading and writing."""
