"""What comes in from files and tables, goes over to another athlete, and leaves."""
