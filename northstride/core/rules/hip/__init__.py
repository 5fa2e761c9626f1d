"""Rules of hip, groin and thigh."""
