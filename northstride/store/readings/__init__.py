"""What is read of a screen, kept for lists and made again behind the requests."""
