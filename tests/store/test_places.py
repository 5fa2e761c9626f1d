"""A place is test, side, key, field: what is written there comes back from there, through the real store."""

from __future__ import annotations

from typing import Any
from uuid import UUID, uuid4

from hypothesis import given, settings
from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from northstride.record.read import check_record
from northstride.store.answers.folding import FIELDS
from northstride.store.answers.new_answer import NewAnswer
from northstride.store.answers.unfolding import normal
from northstride.store.days.arrangements import Arranging, arrange
from northstride.store.errors import Differs
from northstride.store.papers.amending import amend
from northstride.store.papers.signing import sign
from northstride.store.readings.readings import basis_of, reading_of
from northstride.store.screens.screens import get_screen
from northstride.store.screens.writing import write_answers
from northstride.store.signed.frozen import latest_signature
from northstride.store.transfers.record_files import export_record, import_record
from tests.store.test_guards import StoreCase
from tests.support.any_record import records
from tests.support.records import read, record

CATALOGUE = default_catalogue()
KEYED = {code: test.key for code, test in CATALOGUE.tests.items() if test.key}
THROUGH_THE_STORE = settings(max_examples=40)


def key_of(entry: dict[str, Any]) -> str:
    key = entry["values"].get(KEYED.get(entry["test"], ""), "")
    return "" if isinstance(key, dict) else str(key)


def place_of(entry: dict[str, Any]) -> tuple[str, str | None, str]:
    return (entry["test"], entry.get("side"), key_of(entry))


def one_a_place(raw: dict[str, Any]) -> dict[str, Any]:
    """As the bench can hold it: no later entry of the same place."""
    found = {place_of(entry): entry for entry in raw["entries"]}
    return {**raw, "id": str(uuid4()), "entries": list(found.values())}


def answers_for(raw: dict[str, Any]) -> list[NewAnswer]:
    """The answers a bench would write for a record, one a field."""
    made: list[NewAnswer] = []
    for entry in raw["entries"]:
        test, side, key = place_of(entry)
        for measure, value in entry["values"].items():
            lanes = value.items() if isinstance(value, dict) and side is None else [(side, value)]
            for lane, part in lanes:
                if measure != KEYED.get(test):
                    made.append(NewAnswer(uuid4(), test, lane, f"values.{measure}", part, key))
        made += [NewAnswer(uuid4(), test, side, name, entry[name], key) for name in FIELDS if name in entry]
    return made


def told(document: dict[str, Any]) -> list[dict[str, Any]]:
    """Entries as they are said: without ids, times and names, in the order of their places."""
    entries = normal(check_record(document, CATALOGUE).record)["entries"]
    kept = [{key: part for key, part in entry.items() if key not in ("id", "by", "at")} for entry in entries]
    return sorted(kept, key=repr)


def saying_more_than_a_key(raw: dict[str, Any]) -> dict[str, Any]:
    """Without entries that say nothing but which bone: nobody at a bench writes one."""
    entries = [entry for entry in raw["entries"] if set(entry["values"]) != {KEYED.get(entry["test"])}]
    kept = [entry for entry in entries if entry["values"] or entry.get("pain") or entry.get("seen")]
    return {**raw, "entries": kept}


def read_as(document: dict[str, Any]) -> dict[str, Any]:
    """The flags, what is ruled down, held and to be done: what does not say where an entry stands."""
    reading = read(document)
    return {
        "flags": sorted((f["code"], f["side"] or "", f["strength"], f["urgency"]) for f in reading["flags"]),
        "down": sorted((item["code"], item["side"] or "") for item in reading["ruled_down"]),
        "held": sorted((item["test"], item["side"] or "", item["gate"]) for item in reading["held"]),
        "actions": sorted((item["code"], item["side"] or "") for item in reading["actions"]),
    }


class PlaceCase(StoreCase):
    def importing(self, raw: dict[str, Any]) -> UUID:
        with self.engine.begin() as db:
            screen, _ = import_record(db, self.actor, CATALOGUE, raw, *self.whose(raw))
        return screen

    def whose(self, raw: dict[str, Any]) -> tuple[UUID | None, str | None]:
        with self.engine.connect() as db:
            asked = {"clinic": self.actor.clinic_id, "ref": raw["athlete"]["ref"]}
            query = text("SELECT id FROM athletes WHERE clinic_id = :clinic AND ref = :ref")
            return (db.execute(query, asked).scalar(), "Ilse Varga")

    def exported(self, screen: UUID) -> dict[str, Any]:
        with self.engine.begin() as db:
            return export_record(db, self.actor, CATALOGUE, screen)

    def amend(self, screen: UUID, answers: list[NewAnswer]) -> dict[str, Any]:
        with self.engine.begin() as db:
            last = latest_signature(db, self.actor, screen)
            amend(db, self.actor, CATALOGUE, screen, uuid4(), last.id, "second look", [], answers)
        return self.exported(screen)

    def fresh(self) -> UUID:
        screen = uuid4()
        with self.engine.begin() as db:
            self.begin(db, self.actor, screen, self.athlete)
        return screen

    def put(self, screen: UUID, *answers: NewAnswer) -> None:
        with self.engine.begin() as db:
            write_answers(db, self.actor, CATALOGUE, screen, answers, "test")


class Places(PlaceCase):
    @THROUGH_THE_STORE
    @given(records())
    def test_any_record_comes_back_from_a_file_and_reads_as_evaluate_reads_it(
        self, raw: dict[str, Any]
    ) -> None:
        raw = {**raw, "id": str(uuid4()), "athlete": {"ref": f"T-{uuid4()}", **born(raw)}}
        screen = self.importing(raw)
        back = self.exported(screen)
        self.assertEqual(
            [without(entry, "id") for entry in normal(check_record(back, CATALOGUE).record)["entries"]],
            [without(entry, "id") for entry in normal(check_record(raw, CATALOGUE).record)["entries"]],
        )
        with self.engine.begin() as db:
            shown = reading_of(db, self.actor, CATALOGUE, get_screen(db, self.actor, screen))
            _, new = import_record(db, self.actor, CATALOGUE, raw, None, None)
        self.assertFalse(new)
        self.assertEqual(shown.reading, read(back))
        self.assertEqual(read_as(back), read_as(raw))

    @THROUGH_THE_STORE
    @given(records())
    def test_any_record_comes_back_from_the_bench(self, raw: dict[str, Any]) -> None:
        raw = saying_more_than_a_key(one_a_place(raw))
        screen = UUID(raw["id"])
        with self.engine.begin() as db:
            self.begin(db, self.actor, screen, self.athlete)
            for answer in answers_for(raw):
                write_answers(db, self.actor, CATALOGUE, screen, [answer], "test")
        back = self.exported(screen)
        self.assertEqual(told(back), told(raw))
        story = {name: raw[name] for name in ("intake", "purpose", "athlete", "planned")}
        self.assertEqual(read_as({**back, **story}), read_as(raw))

    @THROUGH_THE_STORE
    @given(records(), records())
    def test_any_record_comes_back_from_an_amendment_with_its_entries_where_they_were(
        self, first: dict[str, Any], second: dict[str, Any]
    ) -> None:
        first, second = (
            saying_more_than_a_key(one_a_place(first)),
            saying_more_than_a_key(one_a_place(second)),
        )
        first = {**first, "planned": [], "athlete": {"ref": f"T-{uuid4()}", **born(first)}}
        places = {place_of(entry) for entry in first["entries"]}
        second["entries"] = [entry for entry in second["entries"] if place_of(entry) not in places]
        screen = self.importing(first)
        before = {entry["id"]: entry for entry in self.exported(screen)["entries"]}
        with self.engine.begin() as db:
            row = get_screen(db, self.actor, screen)
            for action in reading_of(db, self.actor, CATALOGUE, row).reading["actions"]:
                left = Arranging(uuid4(), action["code"], action["side"], "left", note="made up")
                arrange(db, self.actor, CATALOGUE, screen, left)
            shown = basis_of(db, self.actor, CATALOGUE, row).identity
            sign(db, self.actor, CATALOGUE, screen, shown)
        changes = answers_for(second)
        if not changes:
            return
        for part in (changes[: len(changes) // 2], changes[len(changes) // 2 :]):
            if part:
                self.amend(screen, part)
        after = self.exported(screen)
        self.assertEqual(told(after), told({**after, "entries": [*first["entries"], *second["entries"]]}))
        kept = {entry["id"]: entry for entry in after["entries"]}
        self.assertEqual({key: kept[key] for key in before}, before)


class Keys(PlaceCase):
    """The eleven tests whose entries a key tells apart."""

    def test_a_second_bone_toe_space_or_position_leaves_the_first_alone(self) -> None:
        walked = 0
        for code, key in KEYED.items():
            test = CATALOGUE.tests[code]
            measure = CATALOGUE.key_measure(code)
            assert measure is not None
            numbers = [str(number) for number in measure.allowed or range(1, 4)]
            keys = [choice.code for choice in measure.choices] or numbers
            side = "left" if test.sides == "each" else None
            screen = self.fresh()
            for own in keys[:2]:
                hurts = {"present": own == keys[0]}
                self.put(screen, NewAnswer(uuid4(), code, side, "pain", hurts, own))
            entries = self.exported(screen)["entries"]
            with self.subTest(test=code):
                self.assertEqual([str(entry["values"][key]) for entry in entries], keys[:2])
                self.assertEqual([entry["pain"]["present"] for entry in entries], [True, False])
                walked += 1
        self.assertEqual(walked, 11)

    def test_an_entry_begun_without_its_key_keeps_to_itself(self) -> None:
        screen = self.fresh()
        percussion = "ankle.percussion"
        self.put(screen, NewAnswer(uuid4(), percussion, "right", "values.result", "positive"))
        self.put(screen, NewAnswer(uuid4(), percussion, "right", "values.result", "negative", "fibula"))
        entries = self.exported(screen)["entries"]
        self.assertEqual(
            [entry["values"] for entry in entries],
            [{"result": "positive"}, {"bone": "fibula", "result": "negative"}],
        )

    def test_two_devices_make_the_same_entry(self) -> None:
        first, second = self.fresh(), self.fresh()
        for screen in (first, second):
            self.put(screen, NewAnswer(uuid4(), "ankle.percussion", "right", "note", "x", "fibula"))
        ids = [self.exported(screen)["entries"][0]["id"] for screen in (first, second)]
        self.assertNotEqual(*ids)
        again = self.fresh()
        self.put(again, NewAnswer(uuid4(), "ankle.percussion", "right", "note", "x", "fibula"))
        self.put(
            again, NewAnswer(uuid4(), "ankle.percussion", "right", "values.result", "negative", "fibula")
        )
        self.assertEqual(len(self.exported(again)["entries"]), 1)

    def test_numbers_of_two_keys_are_told_apart_in_trends(self) -> None:
        screen = self.fresh()
        for angle, force in (("0", 200), ("45", 250)):
            self.put(screen, NewAnswer(uuid4(), "hip.adductor_squeeze", None, "values.force", force, angle))
        with self.engine.connect() as db:
            query = text("SELECT key, mean FROM measurements WHERE screen_id = :id AND current ORDER BY key")
            self.assertEqual(
                [tuple(row) for row in db.execute(query, {"id": screen})], [("0", 200), ("45", 250)]
            )


class EmptyLists(PlaceCase):
    """All pressed, none tender: an answer like any other."""

    def test_it_comes_back_from_file_and_bench_and_clears_what_it_clears(self) -> None:
        raw = record(
            [
                {"test": "ankle.palpation", "side": "right", "values": {"tender": []}},
                {
                    "test": "ankle.weight_bearing",
                    "side": "right",
                    "values": {"after_injury": "yes", "now": "yes"},
                },
            ],
            id=str(uuid4()),
            athlete={"ref": f"T-{uuid4()}", "birth_date": "1996-01-01"},
            purpose="ankle_injury",
            intake={
                "complaint": {"region": "ankle", "side": "right"},
                "onset": {"date": "2026-09-12", "kind": "sudden"},
            },
        )
        back = self.exported(self.importing(raw))
        self.assertEqual(back["entries"][0]["values"], {"tender": []})
        down = {item["code"] for item in read(back)["ruled_down"]}
        self.assertIn("fracture.ankle", down)
        without_it = {**raw, "entries": raw["entries"][1:]}
        self.assertNotIn("fracture.ankle", {item["code"] for item in read(without_it)["ruled_down"]})
        screen = self.fresh()
        self.put(screen, NewAnswer(uuid4(), "ankle.palpation", "right", "values.tender", []))
        self.assertEqual(self.exported(screen)["entries"][0]["values"], {"tender": []})
        self.put(screen, NewAnswer(uuid4(), "ankle.palpation", "right", "values.tender", None))
        self.assertEqual(self.exported(screen)["entries"], [])

    def test_a_file_with_and_one_without_it_are_two_files(self) -> None:
        raw = record(
            [{"test": "ankle.palpation", "side": "right", "values": {"tender": []}, "note": "calm"}],
            id=str(uuid4()),
            athlete={"ref": f"T-{uuid4()}"},
        )
        self.importing(raw)
        changed = {**raw, "entries": [{**raw["entries"][0], "values": {}}]}
        with self.assertRaises(Differs) as refused:
            self.importing(changed)
        self.assertEqual(refused.exception.paths, ["entries[0].values"])

    def test_nothing_seen_is_no_entry(self) -> None:
        screen = self.fresh()
        self.put(screen, NewAnswer(uuid4(), "hip.modified_thomas", "left", "seen", ["back_pain"]))
        self.put(screen, NewAnswer(uuid4(), "hip.modified_thomas", "left", "seen", []))
        self.assertEqual(self.exported(screen)["entries"], [])


def born(raw: dict[str, Any]) -> dict[str, Any]:
    return {key: part for key, part in raw["athlete"].items() if key != "ref"}


def without(entry: dict[str, Any], *names: str) -> dict[str, Any]:
    return {key: part for key, part in entry.items() if key not in names}
