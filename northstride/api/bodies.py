"""Types shared by the inputs of several routers. Inputs are strict and never reused as responses."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

import orjson
from fastapi import Response
from pydantic import AwareDatetime, BaseModel, BeforeValidator, ConfigDict, Field

from northstride.record import model
from northstride.record.model import Day, FilledText, Name, ShortText


class Input(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


class Output(BaseModel):
    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)


def _text_only(value: object) -> object:
    if not isinstance(value, str):
        raise ValueError("is not text")
    return value


# JSON has no type of its own for these, so they come as text and strictness must let text in.
Id = Annotated[UUID, Field(strict=False), BeforeValidator(_text_only, json_schema_input_type=UUID)]
Moment = Annotated[
    model.Moment, Field(strict=False), BeforeValidator(_text_only, json_schema_input_type=AwareDatetime)
]
Password = Annotated[str, Field(min_length=1, max_length=200)]
NewPassword = Annotated[str, Field(min_length=10, max_length=200)]
Login = Annotated[str, Field(min_length=2, max_length=80, pattern=r"^[A-Za-z0-9._@-]+$")]


class Json(Response):
    """A document that is already in its final form."""

    media_type = "application/json"

    def render(self, content: Any) -> bytes:
        return orjson.dumps(content)


__all__ = [
    "Day",
    "FilledText",
    "Id",
    "Input",
    "Json",
    "Login",
    "Moment",
    "Name",
    "NewPassword",
    "Output",
    "Password",
    "ShortText",
]
