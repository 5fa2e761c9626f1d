"""Who may come in: users, sessions, pairings, throttles, and the trail of who looked at what."""
