"""A screen as a FHIR bundle, R4B or R5, out and in."""
