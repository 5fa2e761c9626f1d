"""What is read of a screen: kept for lists, made again behind the requests, over time."""
