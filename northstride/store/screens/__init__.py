"""Screens from their beginning: their head, plan, files, and who is at them."""
