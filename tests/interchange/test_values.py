"""Tables of values: what goes out comes back, nothing is a formula, each fault has its line and column."""

from __future__ import annotations

import csv
import io
import json
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from northstride.cli.published import example_texts
from northstride.interchange.values.cells import NotAValue
from northstride.interchange.values.columns import IGNORE, guess
from northstride.interchange.values.formulas import guarded, unguarded
from northstride.interchange.values.out import COLUMNS, ScreenValues, long_rows, text_of, wide_rows
from northstride.interchange.values.table import MOST_ROWS, table_of
from northstride.interchange.values.to_records import DraftTable
from northstride.record.model import EntryPart, Record
from northstride.record.read import check_record
from tests.support.ankle import done
from tests.support.any_record import CATALOGUE, records
from tests.support.records import record, thomas
from tests.support.taking import take_table

HEAD = "date,athlete,test,side,measure,value"


def checked(raw: dict[str, Any]) -> Record:
    return check_record(raw, CATALOGUE).record


def long_text(*screens: Record, name: str = "") -> str:
    return text_of(long_rows(CATALOGUE, [ScreenValues(each, "draft", name) for each in screens]))


def taken(text: str, roles: list[str] | None = None) -> DraftTable:
    table = table_of(text)
    meant = guess(CATALOGUE, table.heads) if roles is None else roles
    return take_table(CATALOGUE, table, meant, "squad_screen")


def only(text: str) -> Record:
    found = taken(text)
    assert not found.faults, found.faults
    (screen,) = found.screens
    return checked(screen.raw())


def said(entries: list[EntryPart]) -> list[dict[str, Any]]:
    """What a table can carry of entries: not their ids, and nothing of one in which nothing was said."""
    parts = [entry.model_dump(mode="json", exclude={"id"}, exclude_defaults=True) for entry in entries]
    return [part for part in parts if set(part) - {"test", "side", "method", "by", "at", "by_exception"}]


class GoesOutAndComesBack(unittest.TestCase):
    def test_every_example(self) -> None:
        for name, text in example_texts().items():
            with self.subTest(name):
                own = checked(json.loads(text))
                back = only(long_text(own))
                self.assertEqual(said(back.entries), said(own.entries))
                self.assertEqual((back.id, back.date, back.purpose), (own.id, own.date, own.purpose))

    @settings(max_examples=500)
    @given(records())
    def test_any_record(self, raw: dict[str, Any]) -> None:
        own = checked(raw)
        if said(own.entries):
            self.assertEqual(said(only(long_text(own)).entries), said(own.entries))

    def test_trials_dials_nothing_found_and_words_that_look_like_formulas(self) -> None:
        dial = {"reading": 98, "dial": "ninety_neutral", "direction": -1}
        entry = {
            **thomas(
                "left", thigh_angle=[dial, 7.5], knee_angle="looks_full", thigh_angle_knee_straight=-6.25
            ),
            "at": "2026-09-14T10:20:30+02:00",
            "by": "=HYPERLINK(1)",
            "note": "-2+3,\n\"quoted\" 'and' ‏עברית",
            "pain": {"present": True, "nrs": 4, "site": "groin", "familiar": False},
        }
        nothing = done("ankle.palpation", "right", tender=[], pressed=["atfl", "cfl"])
        again = thomas("left", thigh_angle=3)
        own = checked(
            record([entry, nothing, again, {"test": "hip.faber", "side": "left", "declined": "@home"}])
        )
        text = long_text(own, name="=cmd()")
        self.assertEqual(said(only(text).entries), said(own.entries))
        cells = [cell for row in csv.reader(io.StringIO(text, newline="")) for cell in row]
        self.assertTrue(any(cell == "'=HYPERLINK(1)" for cell in cells))
        self.assertFalse([cell for cell in cells if cell[:1] in ("=", "@", "+", "\t")])
        self.assertIn("-6.25", cells)

    def test_a_wide_row_is_a_screen(self) -> None:
        screens = [
            checked(record([thomas("left", thigh_angle=[4, 6]), thomas("right", thigh_angle=-4)])),
            checked(record([done("ankle.palpation", "left", tender=[])], athlete={"ref": "T-2"})),
        ]
        rows = list(wide_rows(CATALOGUE, [ScreenValues(each, "signed") for each in screens]))
        self.assertEqual(len({len(row) for row in rows}), 1)
        self.assertIn("hip.modified_thomas/thigh_angle/left", rows[0])
        found = taken(text_of([[*row[1:]] for row in rows]))
        self.assertEqual(found.faults, [])
        for screen, own in zip(found.screens, screens, strict=True):
            self.assertEqual(said(checked(screen.raw()).entries), said(own.entries))

    def test_ten_thousand_rows(self) -> None:
        rows = "".join(
            f"2026-09-14,T-{place // 100},hip.modified_thomas,left,thigh_angle,{place % 17}\n"
            for place in range(10_000)
        )
        found = taken(f"{HEAD}\n{rows}")
        self.assertEqual((len(found.screens), found.faults), (100, []))
        self.assertEqual(sum(len(screen.entries) for screen in found.screens), 10_000)
        with self.assertRaises(NotAValue):
            table_of(f"{HEAD}\n" + "x\n" * (MOST_ROWS + 1))


class Cells(unittest.TestCase):
    @given(st.text())
    def test_nothing_is_a_formula_and_everything_comes_back(self, cell: str) -> None:
        self.assertEqual(unguarded(guarded(cell)), cell)
        marked = guarded(cell)
        if marked[:1] in ("+", "-"):
            float(marked)
        self.assertNotIn(marked[:1], ("=", "@", "\t", "\r", "\n"))

    def test_what_a_spreadsheet_skips_hides_no_formula(self) -> None:
        """Blanks of every kind, marks nobody sees, and signs of full width."""
        for before in ("", " ", "\u00a0", "\u200b", "\ufeff", "\u2060\u3000", "\x00 \t", "\u202e"):
            for sign in "=+-−@＝＋－＠﹦﹢﹣﹫'":
                cell = f"{before}{sign}cmd()"
                with self.subTest(ascii(cell)):
                    self.assertEqual(guarded(cell), f"'{cell}")
                    self.assertEqual(unguarded(guarded(cell)), cell)
        for plain in ("-6.25", "+3", " a=b", "a", "", "  "):
            self.assertEqual(guarded(plain), plain)

    def test_a_dial_leaves_without_the_machines_own_decimals(self) -> None:
        dial = {"reading": 172.3, "dial": "one_eighty_neutral", "direction": 1}
        text = long_text(checked(record([thomas("left", thigh_angle=dial)])))
        (row,) = csv.DictReader(io.StringIO(text, newline=""))
        self.assertEqual((row["value"], row["reading"]), ("7.7", "172.3"))

    @given(st.lists(st.lists(st.text(max_size=8), min_size=2, max_size=2), min_size=1))
    def test_rows_are_read_as_they_were_written(self, rows: list[list[str]]) -> None:
        text = text_of([["a", "b"], *rows])
        kept = [row for row in rows if any(cell.strip() for cell in map(guarded, row))]
        self.assertEqual(table_of(text).rows, kept)

    def test_numbers_units_words_and_delimiters(self) -> None:
        head = "Day;Reference;Examination;side;measure;Result;unit"
        text = (
            f"{head}\n2026-09-14;T-1;hanging-leg length test;L;thigh_angle;−4,5;°\n"
            "2026-09-14;T-1;ankle.lunge;right;distance;9.5;cm\n"
        )
        entries = only(text).entries
        self.assertEqual(entries[0].values, {"thigh_angle": -4.5})
        self.assertEqual(entries[1].values, {"distance": 95})


class Faults(unittest.TestCase):
    def faults(self, text: str, roles: list[str] | None = None) -> list[tuple[int, str]]:
        return [(fault.line, fault.column) for fault in taken(text, roles).faults]

    def test_each_has_its_line_and_column(self) -> None:
        rows = (
            ("14.9.2026,T-1,hip.modified_thomas,left,thigh_angle,4", "date"),
            ("2026-09-14,,hip.modified_thomas,left,thigh_angle,4", "athlete"),
            ("2026-09-14,T-1,hip.unknown,left,thigh_angle,4", "test"),
            ("2026-09-14,T-1,hip.modified_thomas,up,thigh_angle,4", "side"),
            ("2026-09-14,T-1,hip.modified_thomas,,thigh_angle,4", "side"),
            ("2026-09-14,T-1,hip.modified_thomas,left,shoe_size,4", "measure"),
            ("2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,four", "value"),
            ("2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,400", "value"),
            ("2026-09-14,T-1,hip.faber,left,pain.site,moon", "value"),
            ("2026-09-14,T-1,hip.faber,left,pain.nrs,eleven", "value"),
            ("2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,4,5", ""),
        )
        text = "\n".join([HEAD, *(row for row, _ in rows)])
        found = self.faults(text)
        for place, (row, column) in enumerate(rows):
            self.assertIn((place + 2, column), found, row)

    def test_a_cell_of_several_lines_does_not_shift_what_comes_after(self) -> None:
        text = f'{HEAD},by\n2026-09-14,T-1,hip.faber,left,note,"one\ntwo",J\n2026-09-14,T-1,x,left,note,y,J\n'
        self.assertEqual(self.faults(text), [(4, "test")])

    def test_one_wrong_trial_of_several_and_one_wrong_unit(self) -> None:
        head = f"{HEAD},trial,unit"
        text = (
            f"{head}\n2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,4,1,deg\n"
            "2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,999,2,deg\n"
            "2026-09-14,T-1,hip.modified_thomas,left,knee_angle,9,,mm\n"
        )
        self.assertEqual(self.faults(text), [(3, "value"), (4, "unit")])

    def test_a_number_of_an_entry_belongs_to_one_test_and_a_value_to_it_once(self) -> None:
        head = f"{HEAD},entry"
        text = (
            f"{head}\n2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,4,1\n"
            "2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,5,1\n"
            "2026-09-14,T-1,hip.modified_thomas,right,thigh_angle,5,1\n"
        )
        self.assertEqual(self.faults(text), [(3, "value"), (4, "entry")])

    def test_a_mapping_that_lacks_something_or_says_it_twice(self) -> None:
        text = f"{HEAD}\n2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,4\n"
        roles = ["date", "athlete", "test", "side", "measure", "value"]
        self.assertEqual(self.faults(text, roles), [])
        self.assertEqual(self.faults(text, [*roles[:5], IGNORE]), [(1, "")])
        self.assertEqual(self.faults(text, [*roles[:5], "measure"]), [(1, "value"), (1, "")])
        self.assertEqual(self.faults(text, [*roles[:5], "nonsense"]), [(1, "value"), (1, "")])
        for wrong in ([], roles[:5], [*roles, "nonsense"]):
            self.assertEqual(self.faults(text, wrong), [(1, "")])

    def test_a_repeat_makes_the_same_screen_and_another_value_another(self) -> None:
        first = f"{HEAD}\n2026-09-14,T-1,hip.modified_thomas,left,thigh_angle,4\n"
        ids = [taken(text).screens[0].raw()["id"] for text in (first, first, first.replace(",4", ",5"))]
        self.assertEqual(ids[0], ids[1])
        self.assertNotEqual(ids[0], ids[2])

    def test_what_is_no_table(self) -> None:
        for text in ("", "\n \n", '"open\n'):
            with self.assertRaises(NotAValue):
                table_of(text)


class Headings(unittest.TestCase):
    def test_ours_and_what_people_write(self) -> None:
        self.assertEqual(guess(CATALOGUE, ["Date", "Athlete", "shoe"]), ["date", "athlete", IGNORE])
        thomas_ = CATALOGUE.tests["hip.modified_thomas"]
        label = thomas_.measure("thigh_angle").label  # type: ignore[union-attr]
        wide = ["hip.modified_thomas/thigh_angle/left", f"{thomas_.name}, {label}, right"]
        self.assertEqual(
            guess(CATALOGUE, wide),
            ["hip.modified_thomas/thigh_angle/left", "hip.modified_thomas/thigh_angle/right"],
        )
        self.assertEqual(guess(CATALOGUE, ["date", "date"]), ["date", IGNORE])

    def test_every_column_is_described(self) -> None:
        self.assertTrue(all(COLUMNS.values()))
