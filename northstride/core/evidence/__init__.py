"""What published figures say of a sign, and how a test is read."""
