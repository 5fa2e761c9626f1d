"""What is signed: signatures, words on sheets, templates."""
