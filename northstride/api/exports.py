"""Open formats out: a screen as FHIR, values as tables, a person or a squad as one archive."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import Annotated, Any, Literal, NamedTuple
from uuid import UUID

import orjson
from anyio import CancelScope, to_thread
from fastapi import APIRouter, Query, Response
from fastapi.responses import StreamingResponse
from sqlalchemy import Row
from starlette.types import Receive, Scope, Send

from northstride.api.basis import basis_of_sheets
from northstride.api.strict_json import StrictJsonRoute
from northstride.api.unit_of_work import Work, WorkDep
from northstride.interchange.archive import Archive, file_name
from northstride.interchange.fhir.bundle import BundleContent, bundle_of
from northstride.interchange.fhir.systems import Version
from northstride.interchange.sheets.content import Basis
from northstride.interchange.values.out import ScreenValues, long_rows, text_of, wide_rows
from northstride.store.actor import audit
from northstride.store.papers.sheets import Standing, standing_of_sheets
from northstride.store.people.athletes import get_athlete
from northstride.store.people.squads import get_squad
from northstride.store.transfers.exports import screens_of_athlete, screens_of_squad, went_out

router = APIRouter(prefix="/api", tags=["leaving"], route_class=StrictJsonRoute)

Named = Annotated[bool, Query(description="With the athlete's name; otherwise the reference alone")]
Form = Literal["long", "wide"]
FHIR_TYPE, CSV_TYPE, ZIP_TYPE = "application/fhir+json", "text/csv; charset=utf-8", "application/zip"
# How many files an archive will hold, so that a page can show how far it is.
FILES_HEADER = "X-North-Stride-Files"


def _file(kind: str) -> dict[int | str, dict[str, Any]]:
    return {200: {"content": {kind.partition(";")[0]: {}}}}


def _as_file(content: bytes, kind: str, name: str) -> Response:
    return Response(content, media_type=kind, headers=_named(name))


def _named(name: str) -> dict[str, str]:
    return {"Content-Disposition": f'attachment; filename="{name}"'}


@router.get(
    "/screens/{screen_id}/fhir",
    operation_id="export_fhir",
    response_class=Response,
    responses=_file(FHIR_TYPE),
)
def export_fhir(screen_id: UUID, work: WorkDep, version: Version = "R5", named: Named = False) -> Response:
    standing = standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    basis = basis_of_sheets(work, standing)
    content = _bundle(work, basis, version, named=named)
    went_out(work.db, work.actor, "screen", screen_id, f"FHIR {version}", status=basis.status, named=named)
    work.commit()
    return _as_file(content, FHIR_TYPE, f"north-stride-{standing.screen.date}-{screen_id}-{version}.json")


def _bundle(work: Work, basis: Basis, version: Version, *, named: bool) -> bytes:
    name = basis.athlete if named else None
    told = BundleContent(basis.record, basis.reading, basis.status, dt.datetime.now(dt.UTC), name)
    return orjson.dumps(bundle_of(work.catalogue, told, version, work.services.settings.code_systems))


@router.get(
    "/screens/{screen_id}/values",
    operation_id="export_screen_values",
    response_class=Response,
    responses=_file(CSV_TYPE),
)
def export_screen_values(screen_id: UUID, work: WorkDep, named: Named = False) -> Response:
    standing = standing_of_sheets(work.db, work.actor, work.catalogue, screen_id)
    told = _screen_values(basis_of_sheets(work, standing), named=named)
    went_out(work.db, work.actor, "screen", screen_id, "values, CSV", status=told.status, named=named)
    work.commit()
    name = f"north-stride-values-{told.record.date}-{screen_id}.csv"
    return _as_file(text_of(long_rows(work.catalogue, [told])).encode(), CSV_TYPE, name)


def _screen_values(basis: Basis, *, named: bool) -> ScreenValues:
    return ScreenValues(basis.record, basis.status, basis.athlete if named else "")


@router.get(
    "/athletes/{athlete_id}/values",
    operation_id="export_athlete_values",
    response_class=Response,
    responses=_file(CSV_TYPE),
)
def export_athlete_values(athlete_id: UUID, work: WorkDep, named: Named = False) -> Response:
    return _table(work, _of_athlete(work, athlete_id), named=named)


@router.get(
    "/squads/{squad_id}/values",
    operation_id="export_squad_values",
    response_class=Response,
    responses=_file(CSV_TYPE),
)
def export_squad_values(squad_id: UUID, work: WorkDep, form: Form = "long", named: Named = False) -> Response:
    return _table(work, _of_squad(work, squad_id), form, named=named)


class Whose(NamedTuple):
    """Whose it is, as the audit names it; what its files are called after; all its screens."""

    noun: Literal["athlete", "squad"]
    id: UUID
    name: str
    screens: Sequence[Row[Any]]


def _of_athlete(work: Work, athlete_id: UUID) -> Whose:
    ref = get_athlete(work.db, work.actor, athlete_id).ref
    return Whose("athlete", athlete_id, ref, screens_of_athlete(work.db, work.actor, athlete_id))


def _of_squad(work: Work, squad_id: UUID) -> Whose:
    name = get_squad(work.db, work.actor, squad_id).name
    return Whose("squad", squad_id, name, screens_of_squad(work.db, work.actor, squad_id))


def _let_out(work: Work, whose: Whose, what: str, *, named: bool) -> None:
    """It stands in the audit before its first byte leaves."""
    went_out(work.db, work.actor, *whose[:2], what, screens=len(whose.screens), named=named)
    work.commit()


class ExportStream(StreamingResponse):
    """A stream that stands in the audit as stopped where it did not come to its end."""

    def __init__(self, work: Work, whose: Whose, form: str, content: Iterator[bytes], **more: Any) -> None:
        self._told = (work.services.engine, work.actor, whose.noun, whose.id, form)
        self._ended = False
        super().__init__(self._to_the_end(content), **more)

    def _to_the_end(self, content: Iterator[bytes]) -> Iterator[bytes]:
        yield from content
        self._ended = True

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        try:
            await super().__call__(scope, receive, send)
        finally:
            if not self._ended:
                with CancelScope(shield=True):
                    await to_thread.run_sync(self._say_stopped)

    def _say_stopped(self) -> None:
        engine, actor, noun, noun_id, form = self._told
        with engine.begin() as db:
            audit(db, actor, "stop export", noun, noun_id, {"form": form})


def _table(work: Work, whose: Whose, form: Form | None = None, *, named: bool) -> ExportStream:
    """`form`: where there is a choice of it; the file is then called after it too."""
    what = f"values, {form or 'long'} CSV"
    _let_out(work, whose, what if form else "values, CSV", named=named)
    name = "-".join(filter(None, ("north-stride-values", file_name(whose.name), form)))
    rows = (_wide if form == "wide" else _long)(work, whose.screens, named=named)
    return ExportStream(work, whose, what, rows, media_type=CSV_TYPE, headers=_named(f"{name}.csv"))


def _each(
    work: Work, screens: Sequence[Row[Any]], form: str, *, named: bool
) -> Iterator[tuple[Row[Any], Standing, Basis]]:
    """A unit for each, so that a slow reader holds no connection. It is in the audit before it leaves."""
    for screen in screens:
        with work.services.engine.connect() as db:
            went_out(db, work.actor, "screen", screen.id, form, named=named)
            unit = Work(db, work.running, work.services)
            standing = standing_of_sheets(db, work.actor, work.catalogue, screen.id)
            basis = basis_of_sheets(unit, standing)
            db.commit()
        yield screen, standing, basis


def _long(work: Work, screens: Sequence[Row[Any]], *, named: bool) -> Iterator[bytes]:
    yield text_of(long_rows(work.catalogue, [])).encode()
    for _, _, basis in _each(work, screens, "values, CSV", named=named):
        yield text_of(long_rows(work.catalogue, [_screen_values(basis, named=named)], head=False)).encode()


def _wide(work: Work, screens: Sequence[Row[Any]], *, named: bool) -> Iterator[bytes]:
    """Its head knows every column only at the end."""
    each = _each(work, screens, "values, wide CSV", named=named)
    told = [_screen_values(basis, named=named) for _, _, basis in each]
    yield text_of(wide_rows(work.catalogue, told)).encode()


@router.get(
    "/athletes/{athlete_id}/archive",
    operation_id="export_athlete_archive",
    response_class=Response,
    responses=_file(ZIP_TYPE),
)
def export_athlete_archive(athlete_id: UUID, work: WorkDep, named: Named = False) -> Response:
    return _archive(work, _of_athlete(work, athlete_id), named=named)


@router.get(
    "/squads/{squad_id}/archive",
    operation_id="export_squad_archive",
    response_class=Response,
    responses=_file(ZIP_TYPE),
)
def export_squad_archive(squad_id: UUID, work: WorkDep, named: Named = False) -> Response:
    return _archive(work, _of_squad(work, squad_id), named=named)


PER_SCREEN = ("record", "reading", "fhir")


def _archive(work: Work, whose: Whose, *, named: bool) -> ExportStream:
    _let_out(work, whose, "archive", named=named)
    athletes = len({screen.athlete_id for screen in whose.screens})
    headers = {
        **_named(f"north-stride-{file_name(whose.name)}.zip"),
        FILES_HEADER: str(len(whose.screens) * len(PER_SCREEN) + athletes + 1),
    }
    pieces = _pieces(work, whose.screens, {whose.noun: whose.name}, named=named)
    return ExportStream(work, whose, "archive", pieces, media_type=ZIP_TYPE, headers=headers)


def _pieces(
    work: Work, screens: Sequence[Row[Any]], about: dict[str, Any], *, named: bool
) -> Iterator[bytes]:
    """Screen by screen; the values of an athlete behind the last of theirs."""
    made = dt.datetime.now(dt.UTC)
    archive = Archive(made, {**about, "by": work.actor.name, "named": named})
    folders = {screen.athlete_id: screen for screen in screens}
    names = {key: f"{at + 1:03d}-{file_name(row.ref)}" for at, (key, row) in enumerate(folders.items())}
    values: list[ScreenValues] = []
    for screen, standing, basis in _each(work, screens, "archive", named=named):
        at = f"{names[screen.athlete_id]}/{screen.date}-{screen.id}"
        yield archive.add(f"{at}.json", orjson.dumps(standing.record))
        yield archive.add(f"{at}.reading.json", orjson.dumps(standing.reading))
        yield archive.add(f"{at}.fhir-R5.json", _bundle(work, basis, "R5", named=named))
        values.append(_screen_values(basis, named=named))
        if folders[screen.athlete_id].id == screen.id:
            table = text_of(long_rows(work.catalogue, values)).encode()
            values = []
            yield archive.add(f"{names[screen.athlete_id]}/values.csv", table)
    yield archive.end()
