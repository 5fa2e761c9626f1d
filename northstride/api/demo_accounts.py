"""The made-up people of the demo. They exist in demo mode only, and the page says their passwords."""

from __future__ import annotations

from dataclasses import dataclass

from northstride.store.actor import Role


@dataclass(frozen=True, slots=True)
class Account:
    login: str
    name: str
    role: Role
    password: str


DEMO_ACCOUNTS = (
    Account("aino", "Aino Vierimaa", "owner", "tarnholt-aino"),
    Account("jonas", "Jonas Hestvik", "practitioner", "tarnholt-jonas"),
    Account("maren", "Maren Solli", "assistant", "tarnholt-maren"),
    Account("timo", "Timo Karsk", "student", "tarnholt-timo"),
)
