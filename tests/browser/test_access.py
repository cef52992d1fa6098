"""axe finds nothing on any screen: one walk through each stage."""

import re
from collections.abc import Callable, Sequence
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import settled

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"


def findings(page: Page, only: Sequence[str] = ()) -> list[str]:
    """What axe finds, by all its rules or only some."""
    page.get_by_role("heading", level=1).first.wait_for()  # a page that came is what is looked at
    expect(page.locator("[data-late]")).to_have_count(0)  # greyed on purpose
    at_rest = "document.getAnimations().every(a => a.playState !== 'running')"
    while not page.evaluate(at_rest):  # waiting within the page would need what its policy forbids
        page.wait_for_timeout(20)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text(encoding="utf-8"))
    asked = {"resultTypes": ["violations"]} | ({"runOnly": list(only)} if only else {})
    result = page.evaluate("asked => axe.run(document, asked)", asked)
    return [
        f"{v['id']}: {v['help']}: {[n['html'][:160] for n in v['nodes'][:3]]}"
        for v in result["violations"]
    ]


class Walk:
    """What axe finds at each place that is come by."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.found: dict[str, list[str]] = {}

    def look(self, where: str) -> None:
        self.found[where] = findings(self.page)

    def into(self, where: str, step: Callable[[], object], *, back: str = "Escape") -> None:
        """Open a sheet, look, and close it again."""
        step()
        self.page.get_by_role("dialog").first.wait_for()
        self.look(where)
        self.page.keyboard.press(back)
        self.page.get_by_role("dialog").first.wait_for(state="hidden")

    def end(self) -> None:
        assert {where: found for where, found in self.found.items() if found} == {}


def opened(page: Page, plan: str, stage: str) -> Walk:
    page.goto(f"{plan}/{stage}")
    page.get_by_role("region", name="Purse").wait_for()
    page.get_by_role("heading", level=1).first.wait_for()
    return Walk(page)


def test_axe_finds_nothing_in_brief_plans_and_keys(looked: str, page: Page):
    walk = opened(page, looked, "brief")
    walk.look("brief")
    page.get_by_role("button", name="every assumption of the model").click()
    page.get_by_text("A job-seeker does not buy.").wait_for()
    walk.look("assumptions")
    page.keyboard.press("Escape")
    walk.into("plans", page.get_by_role("button", name="Plans:").click)
    walk.into("keys", page.get_by_role("button", name="Keys").click)
    walk.into("command box", lambda: page.keyboard.press("Control+k"))
    walk.end()


def test_axe_finds_nothing_in_gather(plan: str, page: Page):
    walk = opened(page, plan, "gather")
    walk.look("gather")
    sources = page.get_by_role("listbox").first.get_by_role("option")
    sources.first.wait_for()
    for name in [text.split("\n")[0] for text in sources.all_inner_texts()]:
        sources.filter(has_text=name).click()
        made_up = page.get_by_role("button", name=re.compile("A made-up|Three invented"))
        if made_up.count():
            made_up.click()
            page.get_by_role("grid").get_by_role("row").nth(1).wait_for()
        walk.look(name)
    assert len(walk.found) > 9
    sources.first.click()
    page.get_by_label("Pasted rows").fill("keyword\tvolume\nsash stop\t10\nsash lift\tmany")
    page.get_by_role("button", name="Read what is pasted").click()
    page.get_by_role("radio", name="refused").click()
    walk.look("tray")
    walk.end()


def test_axe_finds_nothing_in_sift(looked: str, page: Page):
    walk = opened(page, looked, "sift")
    grid = page.get_by_role("grid", name="Keywords")
    grid.get_by_role("row").nth(2).click(position={"x": 60, "y": 15})
    page.get_by_role("complementary", name="Workings").get_by_role("heading").first.wait_for()
    walk.look("list")
    for key in ("u", "e", "n", "r"):
        walk.into(f"sheet of {key}", lambda key=key: page.keyboard.press(key))  # type: ignore[misc]
    for _ in range(3):
        page.keyboard.press("Shift+ArrowDown")
    for view, key in {"words": "i", "one": "o", "map": "m", "compare": "c"}.items():
        page.keyboard.press(key)
        expect(page).to_have_url(re.compile(f"view={view}"))
        walk.look(view)
    walk.end()


def test_axe_finds_nothing_in_arrange(looked: str, page: Page):
    walk = opened(page, looked, "arrange")
    page.get_by_role("grid", name="Ad groups").get_by_role("row").nth(1).wait_for()
    walk.look("groups")
    page.keyboard.press("n")
    page.keyboard.press("ArrowDown")
    for key in ("b", "m"):
        walk.into(f"sheet of {key}", lambda key=key: page.keyboard.press(key))  # type: ignore[misc]
    for name in ("names …", "look around …"):
        button = page.get_by_role("button", name=name)
        walk.into(name, button.click)
    page.get_by_role("button", name="Open the campaign Search").click()
    page.get_by_label("Further spot").fill("Front page")
    page.keyboard.press("Enter")
    page.get_by_label("Price: Front page").wait_for()
    walk.look("a campaign with a spot")
    walk.end()


def test_under_a_lamp_every_stage_reads_and_the_choice_is_kept(looked: str, page: Page):
    page.emulate_media(color_scheme="dark")
    found = {}
    for stage in ("brief", "sift", "arrange", "fit", "hand-over"):
        opened(page, looked, stage)
        settled(page)
        found[stage] = findings(page, ["color-contrast"])
    assert {stage: wrong for stage, wrong in found.items() if wrong} == {}
    ground = "getComputedStyle(document.body).backgroundColor"
    dark = page.evaluate(ground)
    page.keyboard.press("Control+k")
    page.keyboard.type("light day")
    page.keyboard.press("Enter")
    expect(page.locator("html")).to_have_attribute("data-ink", "paper")
    assert page.evaluate(ground) != dark
    page.reload()
    expect(page.locator("html")).to_have_attribute("data-ink", "paper")


def test_in_forced_colours_what_is_chosen_and_every_bar_are_still_seen(looked: str, page: Page):
    page.emulate_media(forced_colors="active", reduced_motion="reduce")
    opened(page, looked, "fit")
    settled(page)
    ground = "one => getComputedStyle(one).backgroundColor"
    page_ground = page.evaluate("getComputedStyle(document.body).backgroundColor")

    def grounds(locator):
        return [one.evaluate(ground) for one in locator.all()]

    views = page.get_by_role("radiogroup").first.get_by_role("radio")
    assert grounds(views).count(grounds(views)[0]) == 1, "the view that is shown stands out"
    stage = page.get_by_role("navigation", name="Stages").get_by_role("link", name="Fit")
    assert stage.evaluate(ground) != page_ground
    bars = page.get_by_role("region", name="Purse").locator("i:empty")
    assert bars.count() > 2 and page_ground not in grounds(bars)
    row = page.get_by_role("grid", name="Bids").get_by_role("row").nth(2)
    row.click(position={"x": 60, "y": 15})
    assert row.evaluate("one => getComputedStyle(one).outlineStyle") == "solid"
