"""Waits for what is to come, never for a time: a slow machine only takes longer."""

from __future__ import annotations

import time
from collections.abc import Callable

from playwright.sync_api import Page

from tests.support.browser import PATIENCE_MS


def eventually(check: Callable[[], None]) -> None:
    """Until it passes; its last failure where it never does."""
    end = time.monotonic() + PATIENCE_MS / 1000
    while True:
        try:
            return check()
        except AssertionError:
            if time.monotonic() > end:
                raise
            time.sleep(0.05)


def still(page: Page) -> None:
    """Nothing fades or moves any more."""
    page.wait_for_function("document.getAnimations().every(each => each.playState !== 'running')")


def looked_again(page: Page, times: int = 2) -> None:
    """The open screen has asked what others wrote so often since: what it had to send went before."""
    for _ in range(times):
        with page.expect_response("**/changes?*"):
            pass


def frame(page: Page) -> None:
    """The page has drawn what happened until now."""
    page.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")


def go(page: Page, to: str) -> None:
    """Another place of the app that is open, as a link in it would: without loading it anew."""
    page.evaluate(
        "to => { history.replaceState(null, '', to); dispatchEvent(new PopStateEvent('popstate')); }", to
    )
