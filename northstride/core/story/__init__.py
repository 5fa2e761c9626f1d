"""What is asked of a story, and what a complaint comes to."""
