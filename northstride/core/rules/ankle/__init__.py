"""Rules of leg and ankle: joint, ligaments, tendons, nerves."""
