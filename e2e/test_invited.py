"""Somebody is invited by mail, comes in, is seen to be here; and a forgotten password finds its way."""

import re

from django.contrib.auth import get_user_model
from django.core import mail
from django.test import override_settings

from demo.tarnwick import load_tarnwick
from e2e.browser import HANGS_MS, BrowserTest

PASSWORD = "a long enough phrase 7"


@override_settings(DEMO_SIGN_IN=False)
class Invited(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.owner = get_user_model().objects.create_user("Edda", "edda@example.org", PASSWORD)
        self.hall = load_tarnwick(self.owner).id

    def link(self) -> str:
        return re.search(r"http://[^/\s]+(/\S+)", mail.outbox[-1].body).group(1)

    def test_invited_come_in_and_seen(self) -> None:
        self.open("/")
        self.enter_as("Edda", PASSWORD)
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.page.get_by_title("Projects", exact=True).click()
        self.page.locator(".v-list-item").filter(has_text="People of this project").click()
        self.page.get_by_label("Account or mail address").fill("rasmus@nowhere")
        self.page.get_by_role("button", name="Invite", exact=True).click()
        self.page.get_by_role("alert").filter(has_text="no mail address").wait_for()
        self.page.get_by_label("Account or mail address").fill("rasmus@example.org")
        self.page.keyboard.press("Enter")
        self.page.get_by_label("People", exact=True).get_by_text("rasmus@example.org").wait_for()
        self.page.get_by_role("button", name="Close", exact=True).click()
        self.problems.clear()  # the refusals above
        # In a browser of their own.
        context = self.context.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        theirs = context.new_page()
        theirs.set_default_timeout(HANGS_MS)
        theirs.goto(f"{self.live_server_url}{self.link()}")
        theirs.get_by_role("heading", name="Tarnwick Craft Hall").wait_for()
        theirs.wait_for_load_state("networkidle")
        theirs.get_by_label("Name", exact=True).fill("Rasmus")
        theirs.get_by_label("Password", exact=True).fill("short")
        told = [theirs.get_by_label(label, exact=True).input_value() for label in ("Name", "Password")]
        self.assertEqual(told, ["Rasmus", "short"])
        theirs.get_by_role("button", name="Come in").click()
        theirs.get_by_role("alert").filter(has_text="Password").wait_for()
        theirs.get_by_label("Password", exact=True).fill("another long phrase 8")
        theirs.keyboard.press("Enter")
        theirs.get_by_role("grid", name="Loads", exact=True).wait_for()
        # Each is told of the other, and of the stage where they are.
        self.page.get_by_label("Here too: Rasmus: on Loads").wait_for()
        theirs.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile("^Air")).click()
        self.page.get_by_label("Here too: Rasmus: on Air").wait_for()
        theirs.get_by_label("Here too: Edda: on Loads").wait_for()

    def test_a_forgotten_password(self) -> None:
        self.open("/")
        self.page.get_by_role("button", name="Password forgotten").click()
        self.page.get_by_text("Type your name or mail address first").wait_for()
        self.page.get_by_label("Name", exact=True).fill("Edda")
        self.page.get_by_role("button", name="Password forgotten").click()
        self.page.get_by_text("a link is on its way").wait_for()
        self.open(self.link())
        self.page.get_by_label("New password").fill("an even longer phrase 9")
        self.page.keyboard.press("Enter")
        self.page.get_by_text("It is set").wait_for()
        self.page.get_by_role("link", name="To the sign-in").click()
        self.enter_as("Edda", "an even longer phrase 9")
        self.page.get_by_role("grid", name="Loads", exact=True).wait_for()
        self.problems.clear()  # that nobody was signed in yet is told by a refusal
