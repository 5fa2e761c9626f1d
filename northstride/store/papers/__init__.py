"""What is signed and what leaves: frozen readings, words on sheets, templates, exports."""
