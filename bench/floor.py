"""The app with bare routes beside it: the same stack, the same statements, nothing else."""

from __future__ import annotations

import datetime as dt
from uuid import UUID, uuid4

import orjson
from fastapi import Response
from fastapi.routing import APIRouter
from sqlalchemy import text

from northstride.api.app import create_app
from northstride.api.settings import Settings
from northstride.store.days import day
from northstride.store.screens.newest import NEWEST

SAVE = "INSERT INTO bench_rows (clinic_id, id, screen_id, body) VALUES (:clinic, :id, :screen, :body)"
# What opening a screen selects: session, screen with athlete, answers, arrangements.
OPEN = (
    "SELECT s.*, u.login, u.name, u.role, c.name AS clinic, c.time_zone FROM sessions s"
    " JOIN users u ON u.clinic_id = s.clinic_id AND u.id = s.user_id JOIN clinics c ON c.id = s.clinic_id"
    " WHERE s.token_hash = 'none' OR s.clinic_id = :clinic LIMIT 1",
    "SELECT s.*, a.* FROM screens s JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id"
    " WHERE s.clinic_id = :clinic AND s.id = :screen",
    "SELECT * FROM answers WHERE clinic_id = :clinic AND screen_id = :screen ORDER BY revision",
    "SELECT * FROM arrangements WHERE clinic_id = :clinic AND screen_id = :screen ORDER BY at",
)

# What a page of People selects: session, the page and how many, squads, newest screens, their flags.
PEOPLE_PAGE = (
    "SELECT *, count(*) OVER () FROM athletes WHERE clinic_id = :clinic AND archived_at IS NULL"
    " ORDER BY name, ref, id OFFSET :skip LIMIT :most"
)
PEOPLE_SQUADS = (
    "SELECT athlete_id, squad_id FROM squad_members WHERE clinic_id = :clinic AND athlete_id = ANY(:ids)"
)
PEOPLE_NEWEST = NEWEST.text.replace(":athletes", ":ids")
PEOPLE_FLAGS = (
    "SELECT screen_id, code, side, strength, urgency FROM reading_flags"
    " WHERE clinic_id = :clinic AND screen_id = ANY(:ids) ORDER BY screen_id, place"
)
PEOPLE_AUDIT = (
    "INSERT INTO audit (clinic_id, user_id, verb, noun)"
    " SELECT :clinic, id, 'list', 'athlete' FROM users LIMIT 1"
)

SEARCH_PAGE = (
    "SELECT *, count(*) OVER () FROM athletes WHERE clinic_id = :clinic AND archived_at IS NULL"
    " AND lower(concat_ws(E'\\n', name, ref, sport)) LIKE :like ORDER BY name, ref, id LIMIT :most"
)
STEPS = "SELECT * FROM arrangements WHERE clinic_id = :clinic AND screen_id = ANY(:ids) ORDER BY at, id"
ONE_ATHLETE = "SELECT * FROM athletes WHERE clinic_id = :clinic AND id = :athlete"
COURSE_SCREENS = (
    "SELECT * FROM screens WHERE clinic_id = :clinic AND athlete_id = :athlete"
    " ORDER BY date DESC, created_at DESC"
)
COURSE_AMENDED = (
    "SELECT screen_id FROM signatures WHERE clinic_id = :clinic AND screen_id = ANY(:ids) AND number > 0"
)
COURSE_NUMBERS = "SELECT * FROM measurements WHERE clinic_id = :clinic AND current AND screen_id = ANY(:ids)"


def make_app() -> object:
    app = create_app(Settings())
    engine = app.state.services.engine
    with engine.begin() as db:
        db.execute(
            text(
                "CREATE TABLE IF NOT EXISTS bench_rows (clinic_id uuid, id uuid, screen_id uuid, body jsonb,"
                " PRIMARY KEY (clinic_id, id))"
            )
        )
    router = APIRouter()

    @router.post("/bare/save/{clinic}/{screen}/{rows}")
    def save(clinic: UUID, screen: UUID, rows: int, body: dict[str, object]) -> Response:
        said = orjson.dumps(body).decode()
        with engine.begin() as db:
            for _ in range(rows):
                db.execute(text(SAVE), {"clinic": clinic, "id": uuid4(), "screen": screen, "body": said})
        return Response(b"{}", media_type="application/json")

    @router.get("/bare/open/{clinic}/{screen}")
    def open_screen(clinic: UUID, screen: UUID) -> Response:
        with engine.connect() as db:
            found = [
                [dict(row) for row in db.execute(text(sql), {"clinic": clinic, "screen": screen}).mappings()]
                for sql in OPEN
            ]
        return Response(orjson.dumps(found, default=str), media_type="application/json")

    @router.get("/bare/people/{clinic}/{skip}/{most}")
    def people(clinic: UUID, skip: int, most: int) -> Response:
        with engine.begin() as db:
            asked = {"clinic": clinic, "skip": skip, "most": most}
            db.execute(text(OPEN[0]), {"clinic": clinic}).all()
            rows = [dict(row) for row in db.execute(text(PEOPLE_PAGE), asked).mappings()]
            ids = {"clinic": clinic, "ids": [row["id"] for row in rows], "shipped": "x"}
            db.execute(text(PEOPLE_SQUADS), ids).all()
            newest = [dict(row) for row in db.execute(text(PEOPLE_NEWEST), ids).mappings()]
            screens = {"clinic": clinic, "ids": [row["id"] for row in newest]}
            flags = [dict(row) for row in db.execute(text(PEOPLE_FLAGS), screens).mappings()]
            db.execute(text(PEOPLE_AUDIT), ids)
        return Response(orjson.dumps([rows, newest, flags], default=str), media_type="application/json")

    @router.get("/bare/search/{clinic}/{search}/{most}")
    def search_people(clinic: UUID, search: str, most: int) -> Response:
        asked = {"clinic": clinic, "like": f"%{search}%", "most": most}
        with engine.begin() as db:
            db.execute(text(OPEN[0]), {"clinic": clinic}).all()
            rows = [dict(row) for row in db.execute(text(SEARCH_PAGE), asked).mappings()]
            ids = {"clinic": clinic, "ids": [row["id"] for row in rows], "shipped": "x"}
            db.execute(text(PEOPLE_SQUADS), ids).all()
            newest = [dict(row) for row in db.execute(text(PEOPLE_NEWEST), ids).mappings()]
            screens = {"clinic": clinic, "ids": [row["id"] for row in newest]}
            flags = [dict(row) for row in db.execute(text(PEOPLE_FLAGS), screens).mappings()]
            db.execute(text(PEOPLE_AUDIT), ids)
        return Response(orjson.dumps([rows, newest, flags], default=str), media_type="application/json")

    @router.get("/bare/day/{clinic}")
    def whole_day(clinic: UUID) -> Response:
        today = dt.datetime.now(dt.UTC).date()
        back = {"clinic": clinic, "since": today - day.LOOKS_BACK}
        with engine.begin() as db:
            db.execute(text(OPEN[0]), {"clinic": clinic}).all()
            due = [dict(row) for row in db.execute(day.DUE, {**back, "most": day.MOST_ACTIONS}).mappings()]
            screens = {"clinic": clinic, "ids": list({row["screen_id"] for row in due})}
            steps = [dict(row) for row in db.execute(text(STEPS), screens).mappings()]
            listed = {"clinic": clinic, "most": day.MOST_OPEN}
            open_ = [dict(row) for row in db.execute(day.OPEN_SCREENS, listed).mappings()]
            db.execute(day.OLDER, back).all()
            db.execute(day.OPEN_COUNT, {"clinic": clinic, "shipped": "x"}).all()
            unseen = {"clinic": clinic, "since": today - day.A_SEASON, "most": day.MOST_UNSEEN}
            db.execute(day.UNSEEN, unseen).all()
            db.execute(text(PEOPLE_AUDIT), back)
        return Response(orjson.dumps([due, steps, open_], default=str), media_type="application/json")

    @router.get("/bare/urgent/{clinic}")
    def urgent(clinic: UUID) -> Response:
        with engine.begin() as db:
            db.execute(text(OPEN[0]), {"clinic": clinic}).all()
            count = db.execute(day.URGENT_COUNT, {"clinic": clinic}).scalar_one()
        return Response(orjson.dumps(count), media_type="application/json")

    @router.get("/bare/course/{clinic}/{athlete}")
    def course(clinic: UUID, athlete: UUID) -> Response:
        asked = {"clinic": clinic, "athlete": athlete, "most": day.MOST_ACTIONS}
        with engine.begin() as db:
            db.execute(text(OPEN[0]), {"clinic": clinic}).all()
            db.execute(text(ONE_ATHLETE), asked).all()
            screens = [dict(row) for row in db.execute(text(COURSE_SCREENS), asked).mappings()]
            ids = {"clinic": clinic, "ids": [row["id"] for row in screens]}
            db.execute(text(COURSE_AMENDED), ids).all()
            numbers = [dict(row) for row in db.execute(text(COURSE_NUMBERS), ids).mappings()]
            due = [dict(row) for row in db.execute(day.DUE_OF_ATHLETE, asked).mappings()]
            db.execute(text(PEOPLE_AUDIT), asked)
        return Response(orjson.dumps([screens, numbers, due], default=str), media_type="application/json")

    app.include_router(router)
    # The page's catch-all would answer first.
    app.router.routes.sort(key=lambda route: getattr(route, "path", "") == "/{path:path}")
    return app
