"""What is asked of a story and when, as data: each code has its words, each question its topic."""

from __future__ import annotations

import tomllib
from functools import lru_cache
from pathlib import Path
from typing import Literal, get_args

from pydantic import BaseModel, ConfigDict

from northstride.core.terms.vocabulary import (
    QUESTIONS,
    ComplaintRegion,
    HistoryKind,
    Mechanism,
    OnsetKind,
    Region,
)

FILE = Path(__file__).parent / "story.toml"


class _Data(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_serialization_defaults_required=True)


class Topic(_Data):
    """Questions and what makes them relevant. `asks` are items as a reading asks for them."""

    about: Literal["danger", "confounders", "symptoms"]
    asks: list[str]
    regions: list[Region] = []
    sites: list[str] = []
    kinds: list[OnsetKind | Literal["open"]] = []


class StoryWords(_Data):
    regions: dict[ComplaintRegion, str]
    kinds: dict[OnsetKind, str]
    mechanisms: dict[Mechanism, str]
    history: dict[HistoryKind, str]


class StoryData(_Data):
    words: StoryWords
    topic: list[Topic]


CODES = {
    "regions": get_args(ComplaintRegion),
    "kinds": get_args(OnsetKind),
    "mechanisms": get_args(Mechanism),
    "history": get_args(HistoryKind),
}


def read_story(text: str) -> StoryData:
    """Raises KeyError naming codes without words and items that are no question."""
    data = StoryData.model_validate(tomllib.loads(text))
    words = data.words.model_dump()
    apart = [code for family, codes in CODES.items() for code in {*codes} ^ {*words[family]}]
    apart += [item for topic in data.topic for item in topic.asks if item not in QUESTIONS]
    if apart:
        raise KeyError(f"{FILE.name}: {sorted(apart)}")
    return data


@lru_cache(maxsize=1)
def story_data() -> StoryData:
    return read_story(FILE.read_text(encoding="utf-8"))
