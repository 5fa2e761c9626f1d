"""Answers in the order they were seen in, what stands of them, and the numbers among them."""
