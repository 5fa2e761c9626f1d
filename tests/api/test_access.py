"""Who may reach what: walked from the OpenAPI document, so that no new operation is forgotten."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from sqlalchemy import text

from northstride.api.permissions import OPEN_OPERATIONS, PERMISSIONS
from northstride.api.unit_of_work import COOKIE, CSRF_HEADER, IDLE_HEADER
from northstride.store.signed.identity import PARTS
from tests.support.api import PASSWORD, ROLES, ApiCase, Person, answer
from tests.support.records import record, thomas

Operation = tuple[str, str, str]
FIXED = {"number": "0", "kind": "letter", "page": "1", "secret": "x" * 43}
TABLE = (
    "date,athlete,name,test,side,measure,value\n"
    "2026-09-14,T-77,Ilse Varga,hip.modified_thomas,left,thigh_angle,8\n"
)
NOTHING_SHOWN = {
    **dict.fromkeys((*PARTS, "errors", "earlier"), "0" * 16),
    "rules": "0" * 12,
}


class AccessCase(ApiCase):
    def operations(self) -> list[Operation]:
        """Each operation as (id, method, path)."""
        paths = self.app.openapi()["paths"]
        return [
            (operation["operationId"], method.upper(), path)
            for path, item in paths.items()
            for method, operation in item.items()
        ]

    @staticmethod
    def body(operation: str, ids: dict[str, str]) -> Any:
        """A sound body, so that what is refused is refused for who asks, not for what."""
        new = str(uuid4())
        return {
            "add_athlete": {"id": new, "ref": new[:8], "name": "Ilse Varga"},
            "edit_athlete": {"seen": 1, "sport": "skiing"},
            "add_squad": {"id": new, "name": new},
            "edit_squad": {"name": new},
            "begin_screen": {
                "id": new,
                "athlete_id": ids["athlete_id"],
                "date": "2026-09-14",
                "purpose": "squad_screen",
            },
            "write_answers": {"answers": [answer("left", "values.thigh_angle", 8)]},
            "preview_reading": {"answers": [answer("left", "values.thigh_angle", 8)]},
            "sign_screen": {"shown": NOTHING_SHOWN, "password": PASSWORD},
            "move_screen": {"athlete_id": ids["athlete_id"], "reason": "mixed up", "password": PASSWORD},
            "check_record_file": record([thomas("left", thigh_angle=8)], id=new),
            "amend_screen": {
                "id": new,
                "stands_on": new,
                "password": PASSWORD,
                "reason": "typed wrongly",
                "answers": [answer("left", "values.thigh_angle", 9)],
            },
            "override_gate": {"gate": "fracture_doubt", "side": "left", "reason": "radiograph clear"},
            "arrange_action": {
                "id": new,
                "action": "train.tightness_hip_flexors",
                "side": "left",
                "on": "2026-09-20",
            },
            "undo_arrangement": {"id": new},
            "word_sheet": {"id": new, "sheet": "letter", "field": "to", "value": "A. Colleague"},
            "make_pairing": {"id": new},
            "make_calendar": {"id": new},
            "keep_letter_template": {"id": new, "name": new, "to": "A. Colleague"},
            "fill_letter_template": {"id": new, "template": ids["template_id"]},
            "read_table_columns": {"text": TABLE},
            "check_table": {"text": TABLE, "roles": TABLE.splitlines()[0].split(",")},
            "import_values": {"text": TABLE, "roles": TABLE.splitlines()[0].split(",")},
            "say_where": {"device": "tablet", "step": "bench"},
            "edit_clinic": {"idle_minutes": 15},
            "preview_schools": {"schools": {"knee_pass": 80}},
            "import_record": record([thomas("left", thigh_angle=8)], id=new),
            "add_user": {
                "id": new,
                "login": new[:12],
                "name": "B. Helper",
                "role": "student",
                "password": "ten characters",
            },
            "edit_user": {"archived": False},
            "merge_athletes": {"id": new, "gone": ids["athlete_id"], "password": PASSWORD},
            "undo_merge": {"merge": new, "password": PASSWORD},
            "keep_clinic_route": {"id": new, "purpose": "teaching", "name": new, "tests": ["hip.gait"]},
        }.get(operation)

    @staticmethod
    def query(operation: str, ids: dict[str, str]) -> dict[str, Any]:
        known: dict[str, dict[str, Any]] = {
            "list_screens": {"athlete": ids["athlete_id"]},
            "read_changes": {"after": 0},
            "read_history": {"test": "hip.modified_thomas", "field": "note"},
            "import_record": {"name": "Ilse Varga"},
            "preview_merge": {"gone": ids["athlete_id"]},
            "export_line": {"test": "hip.modified_thomas", "measure": "thigh_angle"},
            "export_date": {"action": "train.tightness_hip_flexors"},
            "read_audit": {"noun": "screen", "key": ids["screen_id"]},
        }
        return known.get(operation, {})

    def ask(self, person: Person, operation: Operation, ids: dict[str, str]) -> Any:
        name, method, path = operation
        return person.call(method, path.format(**ids), self.body(name, ids), params=self.query(name, ids))

    def own_ids(self, person: Person) -> dict[str, str]:
        athlete = person.add_athlete()
        screen = person.begin_screen(athlete)
        squad = str(uuid4())
        person.ok("POST", "/api/squads", {"id": squad, "name": squad})
        route = str(uuid4())
        person.ok(
            "POST",
            "/api/routes",
            {"id": route, "purpose": "teaching", "name": route, "tests": ["hip.gait"]},
        )
        template = str(uuid4())
        kept = {"id": template, "name": template, "greeting": "Dear colleague,"}
        person.ok("POST", "/api/letter-templates", kept)
        return {
            "route_id": route,
            "athlete_id": athlete,
            "screen_id": screen,
            "squad_id": squad,
            "arrangement_id": str(uuid4()),
            "pairing_id": str(uuid4()),
            "number": "0",
            "kind": "letter",
            "page": "1",
            "code": "hip.fadir",
            "secret": "x" * 43,
            "template_id": template,
            "user_id": str(person.user_id),
        }


class OtherClinics(AccessCase):
    def test_another_clinics_ids_answer_as_unknown_ones(self) -> None:
        stranger = self.person("owner", self.new_clinic())
        theirs = self.own_ids(stranger)
        unknown = {**{name: str(uuid4()) for name in theirs}, **FIXED}
        me = self.person("owner")
        walked = 0
        for operation in self.operations():
            name, _, path = operation
            # The catalogue belongs to no clinic, and an address is its own key.
            asks_by_id = ("{" in path and name not in ("read_test", "read_calendar_feed")) or name in (
                "begin_screen",
                "list_screens",
                "read_audit",
            )
            if not asks_by_id:
                continue
            with self.subTest(operation=name):
                foreign, missing = self.ask(me, operation, theirs), self.ask(me, operation, unknown)
                self.assertEqual(foreign.status_code, 404)
                self.assertEqual(foreign.content, missing.content)
                walked += 1
        self.assertGreaterEqual(walked, 15)

    def test_lists_and_squad_filters_hold_only_the_own_clinic(self) -> None:
        stranger, me = self.person("owner", self.new_clinic()), self.person("owner")
        theirs = self.own_ids(stranger)
        listed = [athlete["id"] for athlete in me.listed()]
        self.assertNotIn(theirs["athlete_id"], listed)
        self.assertEqual(me.listed(squad=theirs["squad_id"]), [])
        body = {"seen": 1, "squads": [theirs["squad_id"]]}
        refused = me.call("PATCH", f"/api/athletes/{me.add_athlete()}", body)
        self.assertEqual(refused.status_code, 404)
        self.assertNotIn(str(stranger.user_id), [user["id"] for user in me.ok("GET", "/api/users")])


class Roles(AccessCase):
    def test_role_by_operation(self) -> None:
        owner = self.person("owner")
        for role in ROLES:
            person = self.person(role)
            for operation in self.operations():
                name = operation[0]
                if name in OPEN_OPERATIONS or name == "sign_out":
                    continue
                ids = self.own_ids(owner) if "screen" in operation[2] else self.own_ids_once(owner)
                with self.subTest(role=role, operation=name):
                    response = self.ask(person, operation, ids)
                    if role in PERMISSIONS[name]:
                        self.assertNotIn(response.status_code, (401, 403), response.text)
                        self.assertLess(response.status_code, 500, response.text)
                    else:
                        self.assertEqual(response.status_code, 403)
                        self.assertTrue(response.json()["type"].endswith("not-allowed"))

    def test_who_asks_is_looked_at_before_what_they_say(self) -> None:
        """Whoever may not do it is not told what it would have to look like."""
        ids = self.own_ids(self.person("owner"))
        student, stranger = self.person("student"), self.person("owner")
        stranger.client.cookies.clear()
        for name, method, path in self.operations():
            if name in OPEN_OPERATIONS or method == "GET":
                continue
            with self.subTest(operation=name):
                where = path.format(**ids)
                asked = {"no": "such field"}
                self.assertEqual(stranger.client.request(method, where, json=asked).status_code, 401)
                if "student" not in PERMISSIONS[name]:
                    refused = student.call(method, where, asked)
                    self.assertEqual(refused.status_code, 403)
                    self.assertTrue(refused.json()["type"].endswith("not-allowed"))

    def own_ids_once(self, owner: Person) -> dict[str, str]:
        if not hasattr(self, "_ids"):
            self._ids = self.own_ids(owner)
        return self._ids

    def test_who_may_do_what_is_what_it_was_decided_to_be(self) -> None:
        """Written out by hand, so that a change of the table is a change of this list."""
        owner, licensed = "owner", "owner practitioner"
        staff, everyone = "owner practitioner assistant", "owner practitioner assistant student"
        decided = {
            "add_athlete": staff,
            "add_squad": staff,
            "add_user": owner,
            "amend_screen": licensed,
            "archive_clinic_route": licensed,
            "arrange_action": licensed,
            "undo_arrangement": licensed,
            "begin_screen": everyone,
            "check_record_file": licensed,
            "edit_athlete": staff,
            "edit_squad": staff,
            "edit_user": owner,
            "export_record": licensed,
            "import_record": licensed,
            "keep_clinic_route": licensed,
            "list_athletes": everyone,
            "list_clinic_routes": everyone,
            "list_screens": everyone,
            "list_squads": everyone,
            "list_users": owner,
            "move_screen": owner,
            "override_gate": licensed,
            "preview_reading": everyone,
            "read_athlete": everyone,
            "read_catalogue": everyone,
            "read_changes": everyone,
            "read_day": everyone,
            "make_pairing": everyone,
            "read_pairing": everyone,
            "say_where": everyone,
            "read_clinic": everyone,
            "edit_clinic": owner,
            "preview_schools": owner,
            "read_audit": owner,
            "read_test": everyone,
            "read_course": everyone,
            "read_return_tests": everyone,
            "count_urgent": everyone,
            "read_evidence": everyone,
            "read_sheets": everyone,
            "read_sheet_page": everyone,
            "word_sheet": licensed,
            "list_letter_templates": everyone,
            "keep_letter_template": licensed,
            "archive_letter_template": licensed,
            "fill_letter_template": licensed,
            "export_fhir": licensed,
            "export_screen_values": licensed,
            "export_athlete_values": licensed,
            "export_squad_values": licensed,
            "export_athlete_archive": licensed,
            "export_squad_archive": licensed,
            "export_date": licensed,
            "export_line": licensed,
            "read_calendar": licensed,
            "make_calendar": licensed,
            "revoke_calendar": licensed,
            "read_table_columns": licensed,
            "check_table": licensed,
            "import_values": licensed,
            "hand_over_sheet": licensed,
            "print_sheet": licensed,
            "read_history": everyone,
            "read_reading": everyone,
            "read_route": everyone,
            "read_screen": everyone,
            "read_signature": everyone,
            "read_signature_today": everyone,
            "sign_out": everyone,
            "undo_merge": "owner",
            "merge_athletes": "owner",
            "list_merges": "owner",
            "preview_merge": "owner",
            "list_sessions": everyone,
            "read_description": everyone,
            "sign_screen": licensed,
            "write_answers": everyone,
        }
        self.assertEqual(
            {name: set(roles) for name, roles in PERMISSIONS.items()},
            {name: set(roles.split()) for name, roles in decided.items()},
        )
        before = {"look_at_pairing", "pair_device", "read_session", "set_up", "sign_in"}
        unknown = {*before, "read_calendar_feed", "read_health"}
        self.assertEqual(OPEN_OPERATIONS, unknown)


class Sessions(AccessCase):
    def test_without_a_session_nothing_opens(self) -> None:
        me = self.person("owner")
        ids = self.own_ids(me)
        me.client.cookies.clear()
        for operation in self.operations():
            if operation[0] in OPEN_OPERATIONS:
                continue
            with self.subTest(operation=operation[0]):
                response = self.ask(me, operation, ids)
                self.assertEqual(response.status_code, 401)
                self.assertEqual(response.headers["content-type"], "application/problem+json")

    def test_a_write_without_the_sessions_token_is_refused(self) -> None:
        me = self.person("owner")
        ids = self.own_ids(me)
        for operation in self.operations():
            if operation[0] in OPEN_OPERATIONS or operation[1] == "GET":
                continue
            for token in ("", "x" * 32, "é"):
                me.token = token
                headers = {CSRF_HEADER.encode(): token.encode()}
                with self.subTest(operation=operation[0], token=token):
                    name, method, path = operation
                    response = me.client.request(
                        method, path.format(**ids), json=self.body(name, ids), headers=headers
                    )
                    self.assertEqual(response.status_code, 403)

    def test_the_cookie_is_kept_from_scripts_and_other_sites(self) -> None:
        me = self.person()
        login = f"z-{uuid4().hex[:8]}"
        owner = self.person("owner")
        body = {"id": str(uuid4()), "login": login, "name": "Z", "role": "student", "password": PASSWORD}
        owner.ok("POST", "/api/users", body)
        response = me.client.post("/api/session", json={"login": login.upper(), "password": PASSWORD})
        cookie = response.headers["set-cookie"]
        self.assertIn("HttpOnly", cookie)
        self.assertIn("SameSite=strict", cookie)
        self.assertNotIn(response.json()["token"], cookie)

    def test_signing_out_ends_the_session_on_the_server(self) -> None:
        me = self.person()
        token = me.client.cookies[COOKIE]
        me.ok("DELETE", "/api/session")
        me.client.cookies.set(COOKIE, token)
        self.assertEqual(me.call("GET", "/api/athletes").status_code, 401)

    def test_a_closed_account_is_out_at_once(self) -> None:
        owner, student = self.person("owner"), self.person("student")
        owner.ok("PATCH", f"/api/users/{student.user_id}", {"archived": True})
        self.assertEqual(student.call("GET", "/api/athletes").status_code, 401)
        own = owner.call("PATCH", f"/api/users/{owner.user_id}", {"archived": True})
        self.assertEqual(own.status_code, 422)

    def sql(self, statement: str, who: Person) -> Any:
        with self.engine.begin() as db:
            found = db.execute(text(statement), {"user": who.user_id})
            return found.scalar_one() if found.returns_rows else None

    def test_what_a_page_asks_by_itself_keeps_no_session_alive(self) -> None:
        """Nobody is at the device: whatever is polled, the session ends in time."""
        me, ten = self.person("owner"), "now() - interval '10 minutes'"
        screen = me.begin_screen()
        polls: list[tuple[str, dict[str, int]]] = [
            ("/api/day", {}),
            ("/api/athletes", {}),
            ("/api/session", {}),
            (f"/api/screens/{screen}/changes", {"after": 0}),
        ]
        for idle, used in (("3600", False), ("31", False), ("5", True), ("soon", True)):
            for path, params in polls:
                with self.subTest(idle=idle, path=path):
                    self.sql(f"UPDATE sessions SET last_seen_at = {ten} WHERE user_id = :user", me)
                    me.ok("GET", path, params=params, headers={IDLE_HEADER: idle})
                    lately = "last_seen_at > now() - interval '1 minute'"
                    seen = self.sql(f"SELECT {lately} FROM sessions WHERE user_id = :user", me)
                    asks_itself = path.endswith(("/changes", "/session"))
                    self.assertEqual(seen, used and not asks_itself)

    def test_idle_and_old_sessions_end(self) -> None:
        for column, interval in (("last_seen_at", "16 minutes"), ("created_at", "721 minutes")):
            me = self.person()
            me.ok("GET", "/api/athletes")
            with self.engine.begin() as db:
                db.execute(
                    text(f"UPDATE sessions SET {column} = now() - interval '{interval}' WHERE user_id = :id"),
                    {"id": me.user_id},
                )
            self.assertEqual(me.call("GET", "/api/athletes").status_code, 401)

    def test_only_hashes_are_kept(self) -> None:
        me = self.person()
        token = me.client.cookies[COOKIE]
        with self.engine.connect() as db:
            kept = str(db.execute(text("SELECT * FROM sessions")).all())
            users = str(db.execute(text("SELECT password_hash FROM users")).all())
        self.assertNotIn(token, kept)
        self.assertNotIn(PASSWORD, users)
        self.assertIn("$argon2id$", users)
