"""What was seen is what is kept and signed, whoever is at the device."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

from playwright.sync_api import BrowserContext, FilePayload, Page, Route, expect
from sqlalchemy import text

from northstride.core.catalogue import default_catalogue
from tests.support.browser import HANGING, PASSWORD, BrowserCase
from tests.support.records import record, thomas
from tests.support.waiting import looked_again

ANSWERS = "**/answers"
# Somebody comes in beside this page, which is not told.
SIGN_IN = (
    "([login, password]) => fetch('/api/session', {method: 'POST', headers:"
    " {'Content-Type': 'application/json'}, body: JSON.stringify({login, password})})"
)

KEPT = """() => new Promise((done, fail) => {
  const asked = indexedDB.open('north-stride');
  asked.onerror = fail;
  asked.onsuccess = () => {
    const all = asked.result.transaction('kept').objectStore('kept').getAll();
    all.onsuccess = () => done(JSON.stringify([{...localStorage}, all.result]));
  };
})"""


class TrustCase(BrowserCase):
    def enter(self, page: Page, login: str) -> None:
        page.get_by_label("Name you sign in with").fill(login)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()

    def who_wrote(self, page: Page) -> list[str]:
        with self.engine.connect() as db:
            query = text(
                "SELECT by_name FROM answers WHERE screen_id = :id AND test <> 'story' ORDER BY revision"
            )
            return list(db.execute(query, {"id": self.screen_id(page)}).scalars())

    def kept_on_device(self, page: Page) -> str:
        """All of it: the small store, and the database behind it."""
        return str(page.evaluate(KEPT))


class WhoseOutbox(TrustCase):
    def test_what_one_left_unsent_is_sealed_said_and_sent_as_theirs(self) -> None:
        page = self.at_bench()
        place = page.url
        page.route(ANSWERS, lambda route: route.abort())
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Note, left").click()
        page.get_by_role("textbox", name="Note").fill("a telling note")
        self.sign_out(page)
        expect(page.get_by_text("2 entries of Jonas not sent yet.")).to_be_visible()
        self.assertNotIn("telling", self.kept_on_device(page))
        page.unroute(ANSWERS)
        self.enter(page, "maren")
        page.wait_for_url("**/day")
        page.goto(place)
        expect(page.get_by_label("Thigh, hanging, left")).to_have_value("")
        self.saved(page)
        self.sign_out(page)
        self.enter(page, "jonas")
        page.wait_for_url("**/day")
        page.goto(place)
        expect(page.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        expect(page.get_by_role("status")).to_contain_text("typing: note, left")
        self.assertEqual(self.who_wrote(page), ["Jonas"])

    def test_signing_out_needs_no_server_and_holds_when_it_is_back(self) -> None:
        page = self.at_bench()
        page.context.route("**/api/**", lambda route: route.abort())
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.sign_out(page)
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        page.context.unroute("**/api/**")
        page.reload()
        expect(page.get_by_text("entry of Jonas not sent yet.")).to_be_visible()
        status = page.evaluate("() => fetch('/api/athletes').then(r => r.status)")
        self.assertEqual(status, 401)

    def test_other_tabs_follow_at_once(self) -> None:
        first = self.at_bench()
        second = first.context.new_page()
        self.watch(second)
        second.goto(first.url)
        expect(second.get_by_label("Thigh, hanging, left")).to_be_focused()
        self.sign_out(first)
        expect(second.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
        expect(second.get_by_text("Ilse Varga")).to_have_count(0)
        self.enter(first, "maren")
        expect(second.get_by_label("Thigh, hanging, left")).to_be_visible()
        expect(second.get_by_title("Maren, assistant")).to_be_visible()

    def test_a_refusal_that_comes_late_leaves_nobody_at_the_door(self) -> None:
        page = self.at_bench()
        held: list[Route] = []
        page.route(ANSWERS, lambda route: held.append(route))
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        expect(page.get_by_role("status")).to_contain_text("saving")
        page.evaluate(SIGN_IN, ["maren", PASSWORD])
        expect(page.get_by_title("Maren, assistant")).to_be_visible()
        with page.expect_response(ANSWERS) as late:
            held[0].continue_()
        self.assertGreaterEqual(late.value.status, 400)
        looked_again(page, 1)
        expect(page.get_by_title("Maren, assistant")).to_be_visible()

    def test_a_page_of_one_user_never_asks_as_another(self) -> None:
        """Somebody signs in beside it, and this tab has not heard of it yet."""
        page = self.at_bench()
        page.evaluate(SIGN_IN, ["maren", PASSWORD])
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        expect(page.get_by_title("Maren, assistant")).to_be_visible()
        self.saved(page)
        self.assertEqual(self.who_wrote(page), [])
        self.sign_out(page)
        expect(page.get_by_text("of Jonas not sent yet.")).to_be_visible()

    def test_the_lock_comes_by_itself_and_hides_the_athlete(self) -> None:
        page = self.page()
        page.add_init_script(
            "const now = performance.now.bind(performance);"
            "performance.now = () => now() + (window.ahead ?? 0);"
        )
        self.sign_in(page)
        self.begin_screen(page)
        page.keyboard.type("8")
        # The hand has gone, and half an hour with it; the time of day never told.
        page.evaluate("() => { window.ahead = 1_800_000; }")
        expect(page.get_by_role("heading", name="Locked")).to_be_visible()
        expect(page.get_by_text("Ilse Varga")).to_have_count(0)
        status = page.evaluate("() => fetch('/api/athletes').then(r => r.status)")
        self.assertEqual(status, 401)
        page.reload()
        expect(page.get_by_text("1 entry of Jonas not sent yet.")).to_be_visible()
        self.enter(page, "jonas")
        expect(page.get_by_label("Thigh, hanging, left")).to_have_value("+8")
        self.saved(page)

    def test_a_full_device_is_said_and_loses_nothing(self) -> None:
        page = self.page()
        page.add_init_script(
            "const put = IDBObjectStore.prototype.put;"
            "IDBObjectStore.prototype.put = function (value, key) {"
            " if (window.full && key.includes('/outbox/')) throw new Error('full');"
            " return put.call(this, value, key); };"
        )
        self.sign_in(page)
        self.begin_screen(page)
        page.route(ANSWERS, lambda route: route.abort())
        page.evaluate("() => { window.full = true; }")
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        expect(page.get_by_role("status")).to_contain_text("device full: keep this page open")
        page.unroute(ANSWERS)
        self.saved(page)
        self.assertEqual(self.values(page)["left"], {"thigh_angle": 8})


class WhatIsSigned(TrustCase):
    def reading_of(self, page: Page) -> None:
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.examine_standing(page)
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_role("button", name="Sign", exact=True)).to_be_enabled()

    def elsewhere(self, page: Page, statement: str) -> None:
        with self.engine.begin() as db:
            db.execute(text(statement), {"id": self.screen_id(page)})

    def test_a_reading_that_changed_since_is_refused_with_what_changed(self) -> None:
        page = self.at_bench()
        self.reading_of(page)
        page.get_by_role("button", name="Sign", exact=True).click()
        self.elsewhere(
            page,
            "UPDATE athletes SET birth_date = '2012-01-01', revision = revision + 1"
            " WHERE id = (SELECT athlete_id FROM screens WHERE id = :id)",
        )
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_role("dialog")).to_contain_text("Changed: the athlete's facts")
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()

    def test_each_signed_version_is_read_by_itself(self) -> None:
        page = self.at_bench()
        self.reading_of(page)
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        page.get_by_role("link", name="Bench").click()
        self.open_stop(page, "Modified Thomas test")
        page.get_by_label("Thigh, hanging, left").fill("3")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_role("link", name="Reading").click()
        late = page.get_by_label("Arrived after signing")
        late.get_by_label("Why the signed screen is amended").fill("read the dial again")
        late.get_by_label("Your password").fill(PASSWORD)
        late.get_by_role("button", name="Amend with these").click()
        page.get_by_role("link", name="Amended: read the dial again").click()
        version = page.get_by_label("Signed version")
        expect(version).to_contain_text("likely")
        expect(version).to_contain_text("by what was recorded")
        page.get_by_role("link", name="Signed", exact=True).click()
        expect(version).to_contain_text("As it was signed")
        expect(page.get_by_label("Reading", exact=True)).to_contain_text("likely")

    def test_a_note_that_is_not_kept_yet_keeps_it_from_being_signed(self) -> None:
        page = self.at_bench()
        page.keyboard.type("8")
        page.keyboard.press("Enter")
        self.examine_standing(page)
        self.open_stop(page, "Modified Thomas test")
        page.get_by_role("button", name="Note, left").click()
        page.get_by_role("textbox", name="Note").fill("stiff since winter")
        expect(page.get_by_role("status")).to_contain_text("typing: note, left")
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_role("button", name="Sign", exact=True)).to_be_disabled()
        expect(page.get_by_text("this reading is older than it")).to_be_visible()
        page.reload()
        expect(page.get_by_role("status").first).to_contain_text("typing: note, left")
        page.get_by_role("link", name="Bench").click()
        self.open_stop(page, "Modified Thomas test")
        page.get_by_role("button", name="Note, left").click()
        expect(page.get_by_role("textbox", name="Note")).to_have_value("stiff since winter")
        page.get_by_role("button", name="Keep note").click()
        self.saved(page)
        page.get_by_role("link", name="Reading").click()
        expect(page.get_by_role("button", name="Sign", exact=True)).to_be_enabled()


class Places(TrustCase):
    def open_test(self, page: Page, code: str) -> None:
        page.goto(page.url.split("/bench")[0] + f"/bench/{code}")
        name = default_catalogue().tests[code].name
        expect(page.get_by_role("heading", level=1, name=name, exact=True)).to_be_visible()

    def entries(self, page: Page, test: str) -> list[dict[str, Any]]:
        self.saved(page)
        return [entry["values"] for entry in self._entries(page, test)]

    def test_two_bones_are_two_entries_in_two_rows(self) -> None:
        page = self.at_bench()
        self.open_test(page, "ankle.percussion")
        fibula = page.get_by_role("group", name="Fibula, left")
        tibia = page.get_by_role("group", name="Tibia, left")
        fibula.get_by_role("button", name="Positive").click()
        expect(tibia.get_by_role("button", name="Positive")).to_have_attribute("aria-pressed", "false")
        tibia.get_by_role("button", name="Negative").click()
        found = self.entries(page, "ankle.percussion")
        self.assertEqual(
            found, [{"bone": "fibula", "result": "positive"}, {"bone": "tibia", "result": "negative"}]
        )
        page.reload()
        expect(fibula.get_by_role("button", name="Positive")).to_have_attribute("aria-pressed", "true")
        expect(tibia.get_by_role("button", name="Negative")).to_have_attribute("aria-pressed", "true")

    def test_all_pressed_none_tender_is_an_answer(self) -> None:
        page = self.at_bench()
        self.open_test(page, "ankle.palpation")
        expect(page.get_by_role("group", name="Views")).to_be_visible()
        views = page.get_by_role("group", name="Views").locator("button[class*='view']")
        for view in range(views.count()):
            views.nth(view).click()
            page.get_by_role("button", name="Rest pressed, not tender, right").click()
        (found,) = self.entries(page, "ankle.palpation")
        self.assertEqual(found["tender"], [])
        points = default_catalogue().measure("ankle.palpation", "pressed")
        assert points is not None
        self.assertEqual(found["pressed"], [choice.code for choice in points.choices])

    def test_none_seen_on_a_map_is_an_answer_and_can_be_taken_back(self) -> None:
        page = self.at_bench()
        self.open_test(page, "ankle.look")
        where = page.get_by_role("region", name="Where swollen")
        where.get_by_role("button", name="None of these, right").click()
        self.assertEqual(self.entries(page, "ankle.look"), [{"swelling_site": []}])
        page.reload()
        where.get_by_role("button", name="Anterolateral, right: not seen").click()
        self.assertEqual(self.entries(page, "ankle.look"), [{"swelling_site": ["anterolateral"]}])
        where.get_by_role("button", name="Anterolateral, right: seen").click()
        self.assertEqual(self.entries(page, "ankle.look"), [])

    def test_another_device_sees_an_opened_gate_and_a_story(self) -> None:
        page = self.at_bench()
        planned = "ankle.percussion"
        with self.engine.begin() as db:
            db.execute(
                text(
                    "UPDATE screens SET planned = planned || CAST(:more AS jsonb), revision = revision + 1"
                    " WHERE id = :id"
                ),
                {"id": self.screen_id(page), "more": json.dumps([planned])},
            )
        expect(page.get_by_label("Route").get_by_role("link", name="Percussion")).to_be_visible()
        expect(page.get_by_label("Thigh, hanging, left")).to_be_visible()


class WhoseScreen(TrustCase):
    def file(self, **athlete: Any) -> FilePayload:
        part = {"ref": "NS-0", **athlete}
        made = record([thomas("left", thigh_angle=8)], id=str(uuid4()), athlete=part, examiner="K. Holm")
        return FilePayload(name="screen.json", mimeType="application/json", buffer=json.dumps(made).encode())

    def at_people(self, login: str = "aino") -> tuple[Page, BrowserContext]:
        page = self.page()
        self.sign_in(page, login)
        return page, page.context

    def test_a_file_shows_whom_it_is_about_before_it_is_taken(self) -> None:
        page, _ = self.at_people()
        page.get_by_label("Screen file").set_input_files(self.file())
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("A screen of Ilse Varga")
        expect(dialog).to_contain_text("K. Holm as written in the file")
        dialog.get_by_role("button", name="Leave it").click()
        expect(dialog).to_have_count(0)
        page.get_by_role("button", name="Ilse Varga").click()
        expect(page.get_by_label("Chosen athlete")).not_to_contain_text("as written in the file")
        self.import_file(page, self.file())
        expect(page.get_by_role("link", name="Signed")).to_have_count(0)
        page.get_by_role("link", name="People").click()
        page.get_by_role("button", name="Ilse Varga").click()
        expect(page.get_by_label("Chosen athlete")).to_contain_text("K. Holm as written in the file")

    def test_an_owner_moves_a_screen_to_the_right_person(self) -> None:
        page, _ = self.at_people()
        self.import_file(page, self.file())
        page.get_by_role("button", name="Wrong athlete: move it").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("To").select_option(label="Tuva Lind · NS-2")
        dialog.get_by_label("Why").fill("the wrong line of the list")
        dialog.get_by_label("Your password").fill(PASSWORD)
        dialog.get_by_role("button", name="Move").click()
        expect(page.get_by_role("heading", name="Reading of Tuva Lind")).to_be_attached()
        self.assertEqual(len(self._entries(page, HANGING)), 1)

    def test_the_address_keeps_who_is_looked_for_and_chosen(self) -> None:
        page, _ = self.at_people()
        page.get_by_label("Find by name").fill("tuva")
        page.get_by_role("button", name="Tuva Lind").click()
        expect(page.get_by_role("heading", name="Tuva Lind")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Find by name")).to_have_value("tuva")
        expect(page.get_by_role("heading", name="Tuva Lind")).to_be_visible()
        expect(page.get_by_role("button", name="Ilse Varga")).to_have_count(0)

    def test_an_edit_does_not_overwrite_an_unseen_one(self) -> None:
        page, _ = self.at_people()
        page.get_by_role("button", name="Oskar Bremer").click()
        page.get_by_role("button", name="Edit", exact=True).click()
        with self.engine.begin() as db:
            db.execute(
                text("UPDATE athletes SET sport = 'skiing', revision = revision + 1 WHERE id = :id"),
                {"id": self.athletes["Oskar Bremer"]},
            )
        page.get_by_role("textbox", name="Sport").fill("running")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_role("dialog")).to_contain_text("Somebody changed this athlete since")
        expect(page.get_by_role("textbox", name="Sport")).to_have_value("running")
