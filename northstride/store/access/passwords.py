"""Passwords, hashed with argon2id. No connection is held while one is hashed."""

from __future__ import annotations

import secrets
from dataclasses import dataclass
from functools import lru_cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError


@dataclass(frozen=True, slots=True)
class Passwords:
    """The cost is the library's own unless a test lowers it."""

    hasher: PasswordHasher

    def hash(self, password: str) -> str:
        return self.hasher.hash(password)

    def match(self, hashed: str, password: str) -> bool:
        try:
            return self.hasher.verify(hashed, password)
        except (VerificationError, InvalidHashError):
            return False

    @property
    def nobody(self) -> str:
        return _nobody(self)


@lru_cache
def _nobody(passwords: Passwords) -> str:
    """A hash no password matches, so that an unknown name takes as long as a wrong password."""
    return passwords.hash(secrets.token_urlsafe(16))
