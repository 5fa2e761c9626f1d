"""What every table shares: names of constraints, column types, keys that stay in the clinic."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlalchemy import (
    CheckConstraint,
    DateTime,
    Double,
    ForeignKeyConstraint,
    MetaData,
    Text,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase

NAMES = {
    "pk": "pk_%(table_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
}
Json = Any


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMES)
    type_annotation_map = {
        str: Text,
        dt.datetime: DateTime(timezone=True),
        Json: JSONB(none_as_null=True),
        float: Double,
    }


def in_clinic(table: str, column: str, name: str | None = None) -> ForeignKeyConstraint:
    """A foreign key that cannot leave the clinic."""
    return ForeignKeyConstraint(["clinic_id", column], [f"{table}.clinic_id", f"{table}.id"], name=name)


def one_of(column: str, *values: str) -> CheckConstraint:
    listed = ", ".join(f"'{value}'" for value in values)
    return CheckConstraint(f"{column} IN ({listed})", name=column)
