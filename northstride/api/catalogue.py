"""The catalogue as the web part draws from it."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

import orjson
from fastapi import APIRouter

from northstride.api.answer_inputs import Code
from northstride.api.bodies import Json, Output
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import WorkDep
from northstride.core.catalogue import Catalogue, Site, Test
from northstride.core.story.data import StoryData, story_data
from northstride.core.wording.flag_names import FLAG_NAMES
from northstride.core.wording.spoken import SPOKEN
from northstride.interchange.paper.figures import Figures, figures_by
from northstride.record.edition import shipped
from northstride.record.how_read import HowReadOut, how_read_out
from northstride.store.errors import NotFound

router = APIRouter(prefix="/api/catalogue", tags=["catalogue"], route_class=StrictJsonRoute)


class CatalogueOut(Output):
    tests: list[Test]
    sites: list[Site]
    flag_names: dict[str, str]
    # What codes of a reading are called aloud.
    gates: dict[str, str]
    openings: dict[str, str]
    retakes: dict[str, str]
    criteria: dict[str, str]
    questions: dict[str, str]
    story: StoryData


@router.get("", operation_id="read_catalogue", response_model=CatalogueOut)
def read(work: WorkDep) -> Json:
    work.commit()
    return Json(as_drawn(work.catalogue))


def drawn_as(catalogue: Catalogue) -> Figures:
    """What draws for paper by this catalogue."""
    return figures_by(orjson.dumps(as_drawn(catalogue)).decode())


def as_drawn(catalogue: Catalogue) -> dict[str, Any]:
    """As the web part draws from it, on the screen and for paper."""
    return {
        "tests": [test.model_dump(mode="json") for test in catalogue.tests.values()],
        "sites": [site.model_dump(mode="json") for site in catalogue.sites.values()],
        "flag_names": dict(FLAG_NAMES),
        **{family: dict(words) for family, words in SPOKEN.items()},
        "story": story_data().model_dump(mode="json"),
    }


@lru_cache(maxsize=1)
def _descriptions(_edition: str) -> dict[str, HowReadOut]:
    """Of one edition of catalogue and rules: another one begins anew."""
    return {}


def described(catalogue: Catalogue, code: str) -> HowReadOut:
    """Every answer of a test is tried out for it, so each is made once."""
    kept = _descriptions(shipped(catalogue))
    if code not in kept:
        kept[code] = how_read_out(catalogue, code)
    return kept[code]


@router.get("/tests/{code}", operation_id="read_test")
def read_test(code: Code, work: WorkDep) -> HowReadOut:
    """How a test is read, tried out through the rules, and how much it can say."""
    if code not in work.catalogue.tests:
        raise NotFound("test", code)
    work.commit()
    return described(work.catalogue, code)
