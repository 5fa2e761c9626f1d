"""Repeatable measurements. These machines are shared and noisy: ratios in one run, against a floor."""
