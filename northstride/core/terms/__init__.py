"""The terms of the field: sides, codes, schools, and the faults that carry fields."""
