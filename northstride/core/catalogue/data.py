"""What all catalogue data shares: strict, frozen, short codes and lines."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Code = Annotated[str, Field(pattern=r"^[a-z0-9]+([_.][a-z0-9]+)*$", max_length=80)]
Line = Annotated[str, Field(min_length=1, max_length=160)]


class Data(BaseModel):
    model_config = ConfigDict(
        frozen=True, extra="forbid", strict=True, json_schema_serialization_defaults_required=True
    )
