"""What `./stride` runs."""
