"""Answers as they were given, in the order they were seen in, and what stands of them."""
