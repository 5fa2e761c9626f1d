"""Who may come in: users, sessions, pairings, the brake on guesses, and the trail of who looked at what."""
