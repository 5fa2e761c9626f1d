"""The Sheet: three voices of one reading, words of one's own that are never lost, paper and files."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from playwright.sync_api import Locator, Page, expect
from pypdf import PdfReader

from tests.support.browser import PASSWORD, BrowserCase


class Sheet(BrowserCase):
    def at_sheet(self, kind: str = "", **options: Any) -> Page:
        """A squad screen with one short hip flexor on the left."""
        page = self.at_bench(**options)
        page.keyboard.type("9")
        page.keyboard.press("Enter")
        page.keyboard.type("-6")
        page.keyboard.press("Enter")
        self.saved(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
        if kind:
            page.get_by_label("Sheets").get_by_role("link", name=kind).click()
        expect(
            page.get_by_role("region", name="as it will be printed").get_by_role("img").first
        ).to_be_visible()
        return page

    def test_three_voices_say_it_and_whose_it_is(self) -> None:
        page = self.at_sheet()
        expect(page.get_by_role("heading", level=1)).to_contain_text("Not signed")
        for kind, says in (("Report", "Left: strong"), ("Letter", "left, "), ("Athlete", "your left")):
            page.get_by_label("Sheets").get_by_role("link", name=kind).click()
            paper = page.get_by_role("region", name=f"{kind}, as it will be printed")
            expect(paper.get_by_role("img", name=f"{kind}, page 1 of 1")).to_be_visible()
            expect(paper.get_by_role("list")).to_contain_text(says)

    def test_words_of_ones_own_by_keyboard_and_taken_back(self) -> None:
        page = self.at_sheet("Letter")
        last = page.get_by_label("Last line")
        ours = last.input_value()
        last.fill("Please call us, or write.")
        page.keyboard.press("Tab")
        expect(page.get_by_label("Your words")).to_contain_text("Jonas")
        expect(self.paper_words(page)).to_contain_text("Please call us, or write.")
        page.reload()
        expect(last).to_have_value("Please call us, or write.")
        page.get_by_role("button", name="take back Last line").press("Enter")
        expect(last).to_have_value(ours)

    def paper_words(self, page: Page) -> Locator:
        return page.get_by_role("region", name="as it will be printed").get_by_role("list")

    def test_typed_words_survive_a_dead_server_and_a_reload(self) -> None:
        page = self.at_sheet("Letter")
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        self.app.kill()
        page.get_by_label("Greeting").fill("Thank you for your time.")
        page.keyboard.press("Tab")
        expect(page.get_by_label("Your words")).to_contain_text("kept here, being sent")
        page.reload()
        expect(page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        self.app.start()
        expect(page.get_by_label("Greeting")).to_have_value("Thank you for your time.")
        expect(page.get_by_label("Your words")).to_contain_text("Jonas")

    def test_what_another_examines_meanwhile_comes_onto_the_page(self) -> None:
        page = self.at_sheet("Report")
        paper = page.get_by_role("region", name="as it will be printed")
        expect(paper.get_by_role("list")).to_contain_text("Gait: planned and not done")
        other = page.context.new_page()
        self.watch(other)
        other.goto(page.url.split("/sheet")[0] + "/bench/hip.gait")
        other.get_by_role("group", name="Pattern, both").get_by_role("button", name="Smooth").click()
        self.saved(other)
        expect(paper.get_by_role("list")).not_to_contain_text("Gait: planned and not done")

    def test_a_pdf_by_touch_and_where_it_went(self) -> None:
        page = self.at_sheet("Athlete", has_touch=True)
        page.set_viewport_size({"width": 390, "height": 844})
        with page.expect_download() as kept:
            page.get_by_role("button", name="PDF").tap()
        read = PdfReader(Path(kept.value.path()))
        self.assertIn("Ilse Varga", read.pages[0].extract_text())
        expect(page.get_by_label("Take it along")).to_contain_text("athlete, PDF, draft. Jonas")

    def test_printed_it_is_the_sheet_alone(self) -> None:
        page = self.at_sheet("Report")
        page.evaluate("window.print = () => { document.title = 'printed'; }")
        page.get_by_role("button", name="Print").click()
        expect(page).to_have_title("printed")
        expect(page.get_by_label("Take it along")).to_contain_text("report, paper, draft")
        page.emulate_media(media="print")
        expect(page.get_by_role("img", name="Report, page 1 of 1")).to_be_visible()
        for gone in ("Sheets", "Your words", "Take it along"):
            expect(page.get_by_label(gone, exact=True)).to_be_hidden()

    def test_signed_it_is_no_draft_and_what_is_empty_is_said(self) -> None:
        page = self.at_bench()
        page.keyboard.type("-6")
        page.keyboard.press("Enter")
        page.keyboard.type("-6")
        page.keyboard.press("Enter")
        self.examine_standing(page)
        page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
        expect(page.get_by_text("the emergency number is empty")).to_be_visible()
        page.get_by_role("link", name="Sign the reading").click()
        page.get_by_role("button", name="Sign", exact=True).click()
        page.get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Sign").click()
        expect(page.get_by_text("Signed and frozen.")).to_be_visible()
        page.get_by_label("Path of this screen").get_by_role("link", name="Sheet").click()
        expect(page.get_by_role("heading", level=1)).to_contain_text("Signed. Each leaves as it stands.")
        self.other_words(page)

    def other_words(self, page: Page) -> None:
        """Nothing typed beside a signed paper stands on it without the password."""
        page.get_by_label("Sheets").get_by_role("link", name="Letter").click()
        words = page.get_by_label("Your words")
        last = page.get_by_label("Last line")
        last.fill("Please write.")
        page.keyboard.press("Tab")
        expect(words).to_contain_text("kept here, not on the paper")
        page.reload()
        expect(last).to_have_value("Please write.")
        expect(self.paper_words(page)).not_to_contain_text("Please write.")
        page.get_by_role("button", name="put on the paper… Last line").click()
        page.get_by_role("dialog").get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Put on the paper").click()
        expect(words).to_contain_text("after it was signed")
        expect(self.paper_words(page)).to_contain_text("Please write.")
        expect(page.get_by_role("heading", level=1)).to_contain_text("Paper version 2")
        page.get_by_label("Asked of you").fill("See the left hip.")
        page.get_by_role("button", name="amend… Asked of you").click()
        page.get_by_label("Why the signed screen is amended").fill("asked too little")
        page.get_by_role("dialog").get_by_label("Your password").fill(PASSWORD)
        page.get_by_role("dialog").get_by_role("button", name="Amend").click()
        expect(page.get_by_role("heading", level=1)).to_contain_text("Amended")
        expect(self.paper_words(page)).to_contain_text("See the left hip.")

    def test_an_assistant_reads_and_takes_nothing_along(self) -> None:
        page = self.at_sheet()
        address = page.url
        self.sign_out(page)
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.sign_in(page, "maren")
        page.goto(address)
        expect(page.get_by_label("Last line")).to_have_attribute("readonly", "")
        expect(page.get_by_role("button", name="PDF")).to_have_count(0)
