"""Sheets on paper: PDF to PDF/UA-1, and the same pages as pictures for the screen."""
