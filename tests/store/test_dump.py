"""A database as an earlier version left it migrates with nothing lost."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from typing import Any
from uuid import UUID

from sqlalchemy import text

from northstride.cli.cluster import binaries
from northstride.core.catalogue import default_catalogue
from northstride.store.actor import Actor
from northstride.store.database import connect, migrate
from northstride.store.papers.amending import waiting_late_answers
from northstride.store.readings.readings import reading_of
from northstride.store.readings.refreshing import refresh
from northstride.store.screens.screens import get_screen
from northstride.store.signed.frozen import signatures_of
from northstride.store.transfers.record_files import export_record
from tests.support.database import DatabaseCase, cluster

DUMPS = Path(__file__).parent / "dumps"
CATALOGUE = default_catalogue()
# What users wrote. The audit grows when somebody looks, so it is counted before anybody does.
WRITTEN = (
    "clinics",
    "users",
    "athletes",
    "squads",
    "squad_members",
    "screens",
    "answers",
    "late_answers",
    "arrangements",
    "signatures",
    "measurements",
    "audit",
)


def restored(name: str) -> str:
    """The address of a database as the dump has it."""
    database = f"dump_{name.replace('-', '_')}"
    cluster().drop_database(database)
    cluster().ensure_database(database)
    url = cluster().url(database)
    script = ["-v", "ON_ERROR_STOP=1", "-q", "-o", "/dev/null", "-f", str(DUMPS / f"{name}.sql")]
    subprocess.run([str(binaries() / "psql"), url, *script], check=True, timeout=60)
    return url


class Schema0003(DatabaseCase):
    facts: dict[str, Any]
    before: dict[str, list[str]]
    me: Actor

    @classmethod
    def setUpClass(cls) -> None:
        cls.facts = json.loads((DUMPS / "schema-0003.json").read_text())
        cls.url = restored("schema-0003")
        cls.engine = connect(cls.url, pool_size=2)
        cls.addClassCleanup(cls.engine.dispose)
        cls.before = cls.rows()
        migrate(cls.url)
        person = UUID(cls.facts["person"])
        cls.me = Actor(UUID(cls.facts["clinic"]), person, "A. Practitioner", "practitioner", None, "UTC")

    @classmethod
    def rows(cls) -> dict[str, list[str]]:
        """Each table's rows in the columns it had before, as text."""
        kept: dict[str, list[str]] = {}
        with cls.engine.connect() as db:
            for table in WRITTEN:
                columns = cls.facts.setdefault("columns", {}).setdefault(
                    table,
                    list(
                        db.execute(
                            text(
                                "SELECT column_name FROM information_schema.columns"
                                " WHERE table_name = :table ORDER BY column_name"
                            ),
                            {"table": table},
                        ).scalars()
                    ),
                )
                named = ", ".join(f'"{column}"' for column in columns)
                kept[table] = sorted(str(row) for row in db.execute(text(f"SELECT {named} FROM {table}")))
        return kept

    def test_every_row_that_users_wrote_is_there_as_it_was(self) -> None:
        self.assertGreater(sum(map(len, self.before.values())), 60)
        with self.engine.connect() as db:
            query = text("SELECT count(*) FROM audit WHERE at > (SELECT max(at) FROM signatures)")
            self.assertGreater(db.execute(query).scalar_one(), 0)
        now = self.rows()
        for table in WRITTEN:
            if table != "audit":
                self.assertEqual(now[table], self.before[table], table)
        self.assertEqual(set(self.before["audit"]) - set(now["audit"]), set())

    def test_records_come_out_as_they_came_out_before(self) -> None:
        for screen, record in self.facts["records"].items():
            with self.engine.begin() as db:
                self.assertEqual(export_record(db, self.me, CATALOGUE, UUID(screen)), record)

    def test_the_signed_reading_is_what_was_signed(self) -> None:
        screen = self.facts["signed"]
        with self.engine.begin() as db:
            shown = reading_of(db, self.me, CATALOGUE, get_screen(db, self.me, UUID(screen)))
            signed = signatures_of(db, self.me, UUID(screen))
            waiting = waiting_late_answers(db, self.me, UUID(screen))
        reading = self.facts["readings"][screen]
        covered = {**reading["coverage"], "unexamined": None}
        actions = [{**action, "says": None, "tests": None} for action in reading["actions"]]
        later = {
            "fingerprint": None,
            "ask": None,
            "shut": None,
            "follows": None,
            "coverage": covered,
            "actions": actions,
        }
        self.assertEqual(shown.reading, {**reading, **later})
        self.assertEqual([one.number for one in signed], [0, 1])
        self.assertEqual([one.identity for one in signed], [None, None])
        self.assertEqual([row.body["value"] for row in waiting], [7])

    def test_open_screens_are_read_and_a_bone_named_at_the_bench_still_tells_its_entry(self) -> None:
        refresh(self.engine, CATALOGUE)
        with self.engine.connect() as db:
            states = db.execute(text("SELECT fault FROM readings")).scalars().all()
            record = export_record(db, self.me, CATALOGUE, UUID(self.facts["open"]))
        self.assertEqual(set(states), {None})
        percussion = [entry for entry in record["entries"] if entry["test"] == "ankle.percussion"]
        self.assertEqual(
            [entry["values"] for entry in percussion], [{"bone": "fibula", "result": "negative"}]
        )

    def test_what_a_file_brought_is_known_to_be_from_a_file(self) -> None:
        with self.engine.connect() as db:
            rows = db.execute(text("SELECT id FROM screens WHERE from_file")).scalars().all()
        self.assertEqual([str(row) for row in rows], [self.facts["imported"]])
