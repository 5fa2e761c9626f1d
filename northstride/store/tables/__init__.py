"""Every table. `clinic_id` leads each key: isolation by construction, and the key to spread by."""

from northstride.store.tables.base import Base
from northstride.store.tables.calendar import CalendarFeed
from northstride.store.tables.pairings import Pairing
from northstride.store.tables.people import (
    Athlete,
    AthleteMerge,
    Audit,
    Clinic,
    ClinicRoute,
    Guess,
    LetterTemplate,
    SignIn,
    Squad,
    SquadMember,
    User,
)
from northstride.store.tables.presence import Presence
from northstride.store.tables.readings import (
    Arrangement,
    LateAnswer,
    SheetWords,
    Signature,
    StoredAction,
    StoredFlag,
    StoredReading,
)
from northstride.store.tables.screens import Answer, Measurement, Screen

__all__ = [
    "Answer",
    "Arrangement",
    "Athlete",
    "AthleteMerge",
    "Audit",
    "Base",
    "CalendarFeed",
    "Clinic",
    "ClinicRoute",
    "Guess",
    "LateAnswer",
    "LetterTemplate",
    "Measurement",
    "Pairing",
    "Presence",
    "Screen",
    "SheetWords",
    "SignIn",
    "Signature",
    "Squad",
    "SquadMember",
    "StoredAction",
    "StoredFlag",
    "StoredReading",
    "User",
]
