"""What comes before everything else: danger from the story, bone and blood."""
