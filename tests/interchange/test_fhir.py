"""Bundles: valid by a library's models and our own schema, and the same record when they come back."""

from __future__ import annotations

import copy
import datetime as dt
import json
import unittest
from collections.abc import Iterator
from typing import Any, get_args

from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from northstride.cli.published import DOCS, example_texts
from northstride.core.examination import Context
from northstride.core.reading import evaluate
from northstride.interchange.fhir.bundle import BundleContent, bundle_of
from northstride.interchange.fhir.entries import kind_of
from northstride.interchange.fhir.published import bundle_schema
from northstride.interchange.fhir.systems import BODY_SITE, FLAG, MEASURE, TEST, Version, code_in
from northstride.interchange.fhir.to_record import record_of
from northstride.interchange.sheets.content import Status
from northstride.record.json_text import InvalidRecord
from northstride.record.model import Record
from northstride.record.read import check_record
from northstride.record.reading import reading_out
from northstride.record.reading_model import ReadingOut
from tests.support.any_record import CATALOGUE, records
from tests.support.records import record, thomas

VERSIONS: tuple[Version, ...] = get_args(Version)
VALID = {version: Draft202012Validator(bundle_schema(CATALOGUE, version)) for version in VERSIONS}
MADE = dt.datetime(2026, 9, 14, 18, 30, tzinfo=dt.UTC)


def told(raw: dict[str, Any], status: Status = "draft", name: str | None = None) -> BundleContent:
    checked = check_record(raw, CATALOGUE)
    reading = ReadingOut.model_validate(reading_out(evaluate(checked.exam, CATALOGUE, Context()), CATALOGUE))
    return BundleContent(checked.record, reading, status, MADE, name)


def bundle(what: BundleContent, version: Version = "R5") -> dict[str, Any]:
    return dict(json.loads(json.dumps(bundle_of(CATALOGUE, what, version))))


def back(raw: dict[str, Any]) -> Record:
    return check_record(record_of(CATALOGUE, raw), CATALOGUE).record


def resources(raw: dict[str, Any], kind: str) -> list[dict[str, Any]]:
    found = [item["resource"] for item in raw["entry"]]
    return [resource for resource in found if resource["resourceType"] == kind]


def of_kind(raw: dict[str, Any], kind: str) -> list[dict[str, Any]]:
    return [resource for resource in resources(raw, "Observation") if kind_of(resource) == kind]


def first_value(measure: Any) -> Any:
    """One value of a measure, the same each time."""
    low, high = measure.plausible or (0, 0)
    match measure.kind:
        case "flag":
            return True
        case "strength":
            return "4+"
        case "grade":
            return measure.allowed[-1] if measure.allowed else int(high)
        case "choice":
            return measure.choices[0].code
        case "choices":
            return [choice.code for choice in measure.choices]
        case _:
            return [int(low), int(high)] if measure.kind != "count" else int(high)


class ComesBackTheSame(unittest.TestCase):
    def same(self, raw: dict[str, Any], version: Version) -> None:
        what = told(raw)
        made = bundle(what, version)
        self.assertEqual(back(made), what.record.model_copy(update={"notice": None}))
        self.assertEqual([error.message for error in VALID[version].iter_errors(made)], [])

    def test_every_example(self) -> None:
        for name, text in example_texts().items():
            for version in VERSIONS:
                with self.subTest(name, version=version):
                    self.same(json.loads(text), version)

    def test_every_measure_of_every_test_on_each_side_and_both(self) -> None:
        for test in CATALOGUE.tests.values():
            told_ = {measure.code: first_value(measure) for measure in test.measures}
            apart = {
                m.code: dict.fromkeys(("left", "right"), told_[m.code]) if m.per_side else told_[m.code]
                for m in test.measures
            }
            by_side = [{"test": test.code, "side": side, "values": told_} for side in ("left", "right")]
            both = [{"test": test.code, "values": apart}] if test.sides == "both" else []
            for version in VERSIONS:
                with self.subTest(test.code, version=version):
                    self.same(record([*by_side, *both]), version)

    @settings(max_examples=500)
    @given(records(), st.sampled_from(VERSIONS))
    def test_any_record(self, raw: dict[str, Any], version: Version) -> None:
        self.same(raw, version)

    def test_what_is_written_beside_the_values(self) -> None:
        dial = {"reading": 98, "dial": "ninety_neutral", "direction": -1}
        entry = {
            "id": "00000000-0000-4000-8000-000000000009",
            "at": "2026-09-14T10:20:30.250000+02:00",
            "by": 'Ilse "Ille" Varga; ‏אילזה',
            "note": "=1+1\n'quoted', \"twice\"",
            "seen": [CATALOGUE.tests["hip.modified_thomas"].seen[0].code],
            "pain": {"present": True, "nrs": 4, "site": "groin", "familiar": False},
            "by_exception": False,
            **thomas("left", thigh_angle=[dial, 7.5], knee_angle="looks_full"),
        }
        refused = {"test": "hip.faber", "side": "left", "declined": "too sore"}
        whole = record(
            [entry, refused],
            intake={"symptoms": [], "asked": ["limp"], "complaint": {"region": "hip", "sites": []}},
            planned=[],
            left_out=[{"test": "hip.faber", "reason": "no time"}],
            consent={"given": True, "guardian": "", "chaperone": "Jonas"},
            overrides=[{"gate": "fracture_doubt", "side": "left", "reason": "seen by X-ray", "by": "Jonas"}],
            schools={"trial_value": "median"},
            athlete={"ref": "T-1", "body_mass_kg": 70.5, "sport": "ski", "dominant_side": "left"},
        )
        for version in VERSIONS:
            self.same(whole, version)

    def test_a_choice_of_nothing_is_an_answer_and_no_answer_is_none(self) -> None:
        def pressed(**told_: Any) -> dict[str, Any]:
            return record([{"test": "ankle.palpation", "side": "left", "values": told_}])

        cases: list[dict[str, Any]] = [{"tender": []}, {}, {"tender": ["atfl"]}]
        for values_ in cases:
            self.assertEqual(back(bundle(told(pressed(**values_)))).entries[0].values, values_)


class SaysWhatItIs(unittest.TestCase):
    def setUp(self) -> None:
        self.raw = record(
            [
                thomas("left", thigh_angle=12),
                thomas("right", thigh_angle=-4),
                {
                    "test": "hip.rom.internal_rotation_90",
                    "side": "left",
                    "values": {"active": 30, "passive": 38},
                },
            ]
        )

    def test_values_have_units_sides_and_ranges_and_active_stands_beside_passive(self) -> None:
        observed = of_kind(bundle(told(self.raw)), "value")
        thigh = observed[0]
        self.assertEqual(code_in(thigh["code"], MEASURE), "hip.modified_thomas/thigh_angle")
        self.assertEqual(thigh["valueQuantity"]["code"], "deg")
        self.assertEqual(thigh["valueQuantity"]["value"], 12)
        self.assertEqual(code_in(thigh["bodySite"], BODY_SITE), "hip.left")
        self.assertIn("referenceRange", thigh)
        arms = observed[2]
        self.assertEqual(code_in(arms["code"], TEST), "hip.rom.internal_rotation_90")
        self.assertEqual([part["valueQuantity"]["value"] for part in arms["component"]], [30, 38])

    def test_a_draft_says_preliminary_and_a_signed_one_final_everywhere(self) -> None:
        for status, says in (("draft", "preliminary"), ("signed", "final"), ("amended", "amended")):
            made = bundle(told(self.raw, status))  # type: ignore[arg-type]
            found = [*resources(made, "Observation"), *resources(made, "DiagnosticReport")]
            self.assertEqual({resource["status"] for resource in found}, {says})

    def test_flags_are_findings_with_reasons_under_one_report_that_never_diagnoses(self) -> None:
        made = bundle(told(self.raw))
        flags = of_kind(made, "flag")
        self.assertIn("tightness.hip_flexors", {code_in(flag["code"], FLAG) for flag in flags})
        self.assertTrue(all(note["text"].startswith(("For: ", "Against: ")) for note in flags[0]["note"]))
        report = resources(made, "DiagnosticReport")[0]
        self.assertIn("does not diagnose", report["conclusion"])
        self.assertEqual(len(report["result"]), len(flags) + 3)
        self.assertEqual(resources(made, "Condition"), [])

    def test_referrals_and_rechecks_have_their_days_and_sides(self) -> None:
        sprain = json.loads(example_texts()["examples/lateral-sprain-day-2.json"])
        clot = json.loads(example_texts()["examples/clot-day-3.json"])
        for version in VERSIONS:
            tasks = resources(bundle(told(sprain, "signed"), version), "Task")
            self.assertTrue(all({"start", "end"} <= {*task["restriction"]["period"]} for task in tasks))
            self.assertTrue(tasks)
            requests = resources(bundle(told(clot, "signed"), version), "ServiceRequest")
            self.assertIn("stat", {request["priority"] for request in requests})

    def test_a_name_is_told_only_where_it_was_asked_for(self) -> None:
        self.assertNotIn("name", resources(bundle(told(self.raw)), "Patient")[0])
        named = bundle(told(self.raw, name='O\'Brien "Ö" ‏דנה'))
        self.assertEqual(resources(named, "Patient")[0]["name"], [{"text": 'O\'Brien "Ö" ‏דנה'}])

    def test_our_schema_refuses_what_the_models_let_pass(self) -> None:
        made = bundle(told(self.raw))
        for path, wrong in (
            ("status", "perhaps"),
            ("valueQuantity", {"value": 1, "system": "x", "code": "ell"}),
        ):
            worse = copy.deepcopy(made)
            of_kind(worse, "value")[0][path] = wrong
            self.assertTrue(list(VALID["R5"].iter_errors(worse)), path)

    def test_what_is_published_is_what_is_used(self) -> None:
        known = json.loads((DOCS / "fhir" / "CodeSystem-measure.json").read_text())
        codes = {item["code"] for item in known["concept"]}
        every = {f"{test.code}/{m.code}" for test in CATALOGUE.tests.values() for m in test.measures}
        self.assertEqual(codes, every)


class IsRefusedInWords(unittest.TestCase):
    def setUp(self) -> None:
        self.made = bundle(
            told(record([thomas("left", thigh_angle=[12, 13]), thomas("right", thigh_angle=-4)]))
        )

    def refused(self, raw: dict[str, Any], path: str, says: str) -> None:
        with self.assertRaises(InvalidRecord) as caught:
            back(raw)
        faults = {fault.path: fault.problem for fault in caught.exception.faults}
        self.assertIn(path, faults)
        self.assertIn(says, faults[path])

    def test_what_is_no_bundle_of_ours(self) -> None:
        self.refused({**self.made, "meta": {}}, "meta.tag", "no bundle of North Stride")
        self.refused({**self.made, "meta": 3}, "meta.tag", "no bundle of North Stride")

    def test_what_the_models_refuse_is_named_by_its_path(self) -> None:
        self.made["entry"][3]["resource"]["code"] = "x"
        with self.assertRaises(InvalidRecord) as caught:
            back(self.made)
        self.assertTrue(caught.exception.faults[0].path.startswith("entry.3."), caught.exception.faults)

    def test_values_of_another_side_unit_test_or_missing(self) -> None:
        group = next(
            place for place, item in enumerate(self.made["entry"]) if kind_of(item["resource"]) == "entry"
        )
        at = f"entry[{group}].resource"

        def changed(**told_: Any) -> dict[str, Any]:
            worse = copy.deepcopy(self.made)
            of_kind(worse, "value")[0].update(told_)
            return worse

        other = of_kind(self.made, "value")[1]
        self.refused(changed(bodySite=other["bodySite"]), at, "another side")
        parts = copy.deepcopy(of_kind(self.made, "value")[0]["component"])
        parts[0]["valueQuantity"]["code"] = "mm"
        self.refused(changed(component=parts), at, "measured in deg")
        self.refused(changed(component=parts[::-1]), at, "mm")
        gone = copy.deepcopy(self.made)
        value = of_kind(gone, "value")[0]
        gone["entry"] = [item for item in gone["entry"] if item["resource"] is not value]
        self.refused(gone, at, "not in the bundle")
        swapped = copy.deepcopy(of_kind(self.made, "value")[0]["component"])[::-1]
        self.refused(changed(component=swapped), at, "out of order")

    def test_answers_that_stand_twice_or_out_of_order(self) -> None:
        story = resources(self.made, "QuestionnaireResponse")[0]
        answer = [{"valueString": "hip.faber"}]
        for link, told_ in (("planned[7]", answer), ("planned[0]", []), ("..", answer)):
            story["item"] = [{"linkId": link, **({"answer": told_} if told_ else {})}]
            self.refused(self.made, "QuestionnaireResponse", link)


def references(part: Any) -> Iterator[str]:
    """Every reference of a bundle, found by a reader that knows nothing of how ours are made."""
    if isinstance(part, dict):
        for name, value in part.items():
            if name == "reference" and isinstance(value, str):
                yield value
            else:
                yield from references(value)
    elif isinstance(part, list):
        for item in part:
            yield from references(item)


def told_kinds(part: Any, name: str) -> Iterator[tuple[str, str]]:
    """What each named reference should lead to."""
    kinds = {"subject": "Patient", "encounter": "Encounter", "hasMember": "Observation", "for": "Patient"}
    if isinstance(part, dict):
        for key, value in part.items():
            yield from told_kinds(value, key)
        if isinstance(part.get("reference"), str) and name in kinds:
            yield part["reference"], kinds[name]
    elif isinstance(part, list):
        for item in part:
            yield from told_kinds(item, name)


class Receivers(unittest.TestCase):
    """A receiver follows references by full address, and reads our codes where it expects them."""

    def made(self) -> Iterator[tuple[str, dict[str, Any]]]:
        for name, text in example_texts().items():
            for version in VERSIONS:
                yield f"{name} {version}", bundle(told(json.loads(text)), version)

    def test_every_reference_of_every_bundle_can_be_followed(self) -> None:
        for name, made in self.made():
            with self.subTest(name):
                by_address = {item["fullUrl"]: item["resource"]["resourceType"] for item in made["entry"]}
                self.assertEqual(len(by_address), len(made["entry"]))
                found = list(references(made))
                self.assertGreater(len(found), 3)
                self.assertEqual([each for each in found if each not in by_address], [])
                for address, kind in told_kinds(made, ""):
                    self.assertEqual(by_address[address], kind)

    def test_bundles_that_named_resources_by_kind_and_id_still_come_in(self) -> None:
        for name, made in self.made():
            kinds = {item["fullUrl"]: item["resource"] for item in made["entry"]}
            text = json.dumps(made)
            for address, resource in kinds.items():
                old = f"{resource['resourceType']}/{resource['id']}"
                text = text.replace(json.dumps({"reference": address}), json.dumps({"reference": old}))
            with self.subTest(name):
                self.assertNotEqual(json.loads(text), made)
                self.assertEqual(back(json.loads(text)), back(made))

    def test_our_addresses_can_stand_under_another_base(self) -> None:
        what = told(record([thomas("left", thigh_angle=8)]))
        for base, code in (
            ("https://fhir.tarnholt.example/", "https://fhir.tarnholt.example/code/test"),
            ("urn:tarnholt:", "urn:tarnholt:code:test"),
        ):
            with self.subTest(base):
                made = json.loads(json.dumps(bundle_of(CATALOGUE, what, "R5", base)))
                self.assertNotIn("urn:north-stride", json.dumps(made))
                self.assertIn(code, json.dumps(made))
                self.assertEqual(
                    check_record(record_of(CATALOGUE, made, base), CATALOGUE).record, what.record
                )
                # As ours they are known everywhere.
                ours = bundle(what)
                self.assertEqual(record_of(CATALOGUE, ours, base), record_of(CATALOGUE, ours))

    def test_of_two_patients_nobody_knows_whose_it_is(self) -> None:
        made = bundle(told(record([thomas("left", thigh_angle=8)])))
        (patient,) = (item for item in made["entry"] if item["resource"]["resourceType"] == "Patient")
        made["entry"].append(copy.deepcopy(patient))
        with self.assertRaises(InvalidRecord) as refused:
            back(made)
        self.assertIn("needs one Patient, and has 2", str(refused.exception))

    def test_a_dial_leaves_as_what_was_meant(self) -> None:
        dial = {"reading": 172.3, "dial": "one_eighty_neutral", "direction": 1}
        made = bundle(told(record([thomas("left", thigh_angle=dial)])))
        (value,) = of_kind(made, "value")
        self.assertEqual(value["valueQuantity"]["value"], 7.7)
