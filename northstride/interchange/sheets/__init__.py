"""What leaves the room: the practitioner's report, the letter, and the athlete's own sheet.

All three are made from one reading and one record. What was found cannot be changed here.
"""
