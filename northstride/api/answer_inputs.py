"""An answer as it comes in: of a test, of the story, of the plan."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, JsonValue

from northstride.api.bodies import Id, Input, Moment, ShortText
from northstride.store.answers.new_answer import NewAnswer

SideCode = Literal["left", "right"]
Code = Annotated[str, Field(max_length=120, pattern=r"^[a-z0-9_.]+$")]


class AnswerInput(Input):
    """One changed field: of a test `values.<measure>`, `seen`, `pain`, `note`, `declined` or `method`.

    `key` tells a test's entries on one side apart: bone, toe, space, position. What was told stands at test
    `story`, what is planned at `route`: there `field` names what was asked.
    """

    id: Id
    test: Code
    side: SideCode | None = None
    key: Annotated[str, Field(max_length=80, pattern=r"^[A-Za-z0-9_]*$")] = ""
    field: Code
    value: JsonValue = None
    at: Moment | None = None

    def to_store(self) -> NewAnswer:
        return NewAnswer(self.id, self.test, self.side, self.field, self.value, self.key, self.at)


class AnswersInput(Input):
    """`clock`: the device's own time at sending, so that what it wrote is ordered by ours."""

    answers: Annotated[list[AnswerInput], Field(min_length=1, max_length=200)]
    device: ShortText = ""
    clock: Moment | None = None
