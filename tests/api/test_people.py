"""Athletes, squads, the first owner, and the headers around every answer."""

from __future__ import annotations

from uuid import uuid4

from fastapi.testclient import TestClient
from pydantic import SecretStr

from northstride.api.app import create_app
from northstride.api.settings import Settings
from tests.support.api import ApiCase, answer
from tests.support.database import fresh_database


class Athletes(ApiCase):
    def test_add_find_edit_archive_restore(self) -> None:
        me = self.person("assistant")
        squad = str(uuid4())
        me.ok("POST", "/api/squads", {"id": squad, "name": f"Squad {squad[:4]}"})
        athlete = me.add_athlete(name="Åse Þórunn 100%", sport="ski_ing", squads=[squad])
        for search in ("åse", "100%", "ski_ing", "Þórunn ski"):
            found = me.listed(search=search)
            self.assertEqual([item["id"] for item in found], [athlete], search)
        self.assertEqual(me.listed(search="skiXing"), [])
        me.edit(athlete, body_mass_kg=60.5, sport=None)
        edited = me.ok("GET", f"/api/athletes/{athlete}")
        self.assertEqual((edited["body_mass_kg"], edited["sport"], edited["squads"]), (60.5, None, [squad]))
        me.edit(athlete, archived=True)
        self.assertNotIn(athlete, [item["id"] for item in me.listed()])
        gone = me.listed(archived=True)
        self.assertIn(athlete, [item["id"] for item in gone])
        refused = me.call(
            "POST",
            "/api/screens",
            {"id": str(uuid4()), "athlete_id": athlete, "date": "2026-09-14", "purpose": "squad_screen"},
        )
        self.assertEqual(refused.status_code, 422)
        me.edit(athlete, archived=False)
        self.assertIn(athlete, [item["id"] for item in me.listed()])

    def test_a_taken_reference_and_odd_values_are_named_at_the_field(self) -> None:
        me = self.person()
        me.add_athlete(ref="NS-1")
        for fields, path in (
            ({"ref": "NS-1"}, "ref"),
            ({"ref": ""}, "ref"),
            ({"name": " "}, "name"),
            ({"birth_date": "yesterday"}, "birth_date"),
            ({"body_mass_kg": "60"}, "body_mass_kg"),
            ({"body_mass_kg": True}, "body_mass_kg"),
            ({"sex": "f"}, "sex"),
            ({"name": "a\u0000b"}, "name"),
        ):
            key = str(uuid4())
            body = {"id": key, "ref": key[:8], "name": "B", **fields}
            refused = me.call("POST", "/api/athletes", body)
            with self.subTest(fields=fields):
                self.assertEqual(refused.status_code, 422, refused.text)
                self.assertEqual([fault["path"] for fault in refused.json()["faults"]], [path])

    def test_adding_twice_is_adding_once(self) -> None:
        me = self.person()
        body = {"id": str(uuid4()), "ref": "NS-7", "name": "B. Holm"}
        for _ in range(2):
            me.ok("POST", "/api/athletes", body)
        self.assertEqual(me.call("POST", "/api/athletes", {**body, "name": "C"}).status_code, 409)

    def test_the_newest_screens_flags_stand_in_the_list_and_follow_each_write(self) -> None:
        me = self.person()
        athlete = me.add_athlete()
        me.begin_screen(athlete, date="2026-01-10")
        newest = me.begin_screen(athlete, date="2026-09-14")
        for value, strength in ((3, "possible"), (8, "likely")):
            me.answer(newest, "left", "values.thigh_angle", value)
            self.refresh()
            (mine,) = [item for item in me.listed() if item["id"] == athlete]
            self.assertEqual(mine["last_screen"]["id"], newest)
            self.assertEqual([flag["strength"] for flag in mine["last_screen"]["flags"]], [strength])
        listed = me.ok("GET", "/api/screens", params={"athlete": athlete})
        self.assertEqual([line["date"] for line in listed], ["2026-09-14", "2026-01-10"])

    def test_squads_are_renamed_archived_and_counted(self) -> None:
        me = self.person()
        squad = str(uuid4())
        name = f"Seniors {squad[:4]}"
        for _ in range(2):
            me.ok("POST", "/api/squads", {"id": squad, "name": name})
        self.assertEqual(me.call("POST", "/api/squads", {"id": str(uuid4()), "name": name}).status_code, 422)
        me.add_athlete(squads=[squad])
        me.ok("PATCH", f"/api/squads/{squad}", {"archived": True})
        (found,) = [item for item in me.ok("GET", "/api/squads") if item["id"] == squad]
        self.assertEqual((found["members"], found["archived"]), (1, True))

    def test_a_screen_before_birth_is_refused(self) -> None:
        me = self.person()
        athlete = me.add_athlete(birth_date="2026-09-15")
        body = {"id": str(uuid4()), "athlete_id": athlete, "date": "2026-09-14", "purpose": "squad_screen"}
        self.assertEqual(me.call("POST", "/api/screens", body).json()["faults"][0]["path"], "date")


class FirstOwner(ApiCase):
    def test_is_made_once_and_signed_in(self) -> None:
        app = create_app(Settings(database_url=SecretStr(fresh_database()), hash_cost="test"))
        with TestClient(app) as client:
            self.assertFalse(client.get("/api/session").json()["set_up"])
            body = {
                "clinic": "Tarnholt",
                "time_zone": "Europe/Helsinki",
                "login": "Aino",
                "name": "Aino V.",
                "password": "long enough words",
            }
            for changes, path in (
                ({"time_zone": "Mars"}, "time_zone"),
                ({"password": "short"}, "password"),
                ({"login": "a b"}, "login"),
            ):
                refused = client.post("/api/setup", json={**body, **changes})
                self.assertEqual([f["path"] for f in refused.json()["faults"]], [path])
            made = client.post("/api/setup", json=body)
            self.assertEqual((made.status_code, made.json()["role"]), (201, "owner"))
            self.assertEqual(client.get("/api/session").json()["session"]["name"], "Aino V.")
            self.assertEqual(client.post("/api/setup", json=body).status_code, 409)

    def test_demo_accounts_are_named_in_demo_mode_only(self) -> None:
        with TestClient(self.app) as client:
            self.assertEqual(client.get("/api/session").json()["demo_accounts"], [])


class Headers(ApiCase):
    def test_nothing_foreign_and_nothing_cached(self) -> None:
        me = self.person()
        for path in ("/api/health", "/api/athletes", f"/api/screens/{uuid4()}"):
            headers = me.call("GET", path).headers
            self.assertIn("default-src 'self'", headers["content-security-policy"])
            self.assertEqual(headers["cache-control"], "no-store")
            self.assertEqual(headers["x-content-type-options"], "nosniff")

    def test_a_lost_database_is_said_plainly(self) -> None:
        app = create_app(Settings(database_url=SecretStr("postgresql://127.0.0.1:1/none")))
        with TestClient(app, raise_server_exceptions=False) as client:
            lost = client.get("/api/health")
        self.assertEqual(lost.status_code, 503)
        self.assertTrue(lost.json()["type"].endswith("no-database"))

    def test_answers_fit_their_description(self) -> None:
        """The heavy documents skip the response models, so the models are held against them here."""
        from northstride.api.catalogue import CatalogueOut
        from northstride.api.readings import KeptReadingOut, PreviewOut
        from northstride.api.screen_outputs import ChangesOut, ScreenOut

        me = self.person()
        screen = me.begin_screen()
        me.answer(screen, "left", "values.thigh_angle", [8, 9])
        at = f"/api/screens/{screen}"
        draft = {"answers": [answer("left", "values.knee_angle", "x")]}
        for model, document in (
            (CatalogueOut, me.call("GET", "/api/catalogue")),
            (ScreenOut, me.call("GET", at)),
            (KeptReadingOut, me.call("GET", f"{at}/reading")),
            (ChangesOut, me.call("GET", f"{at}/changes", params={"after": 0})),
            (PreviewOut, me.call("POST", f"{at}/preview", draft)),
        ):
            model.model_validate_json(document.content, by_name=True, by_alias=True)


class Colleagues(ApiCase):
    def test_adding_twice_is_once_and_another_content_or_a_taken_login_is_refused(self) -> None:
        owner = self.person("owner")
        login = f"m-{uuid4().hex[:8]}"
        body = {
            "id": str(uuid4()),
            "login": login,
            "name": "M.",
            "role": "student",
            "password": "ten letters",
        }
        for _ in range(2):
            owner.ok("POST", "/api/users", body)
        other = owner.call("POST", "/api/users", {**body, "role": "owner"})
        self.assertEqual((other.status_code, other.json()["faults"][0]["path"]), (409, "role"))
        taken = owner.call("POST", "/api/users", {**body, "id": str(uuid4()), "login": login.upper()})
        self.assertEqual((taken.status_code, taken.json()["faults"][0]["path"]), (422, "login"))
