"""What is signed is frozen, and served from its signature alone; the record of a screen, open or signed."""
