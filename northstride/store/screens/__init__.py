"""Screens from their beginning: head, plan, answers written to them, and who is at them."""
