"""Make docs/screenshots anew from the sample: ``python -m tools.shots [folder]``."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tools.program import browser_of, profile_of, served, watched_page

FOLDER = Path(__file__).parent.parent / "docs" / "screenshots"
_PASTED = """keyword\tsearches\tlow price\thigh price\tmatch
sash window repair eastmere\t170\t0.75\t1.70\texact
sash window painter\t10 to 100\t0.60\t1.90\t
sash window workshop wrenfold\t< 10\t0.40\t1.10\tphrase
window cord fitter\t1.2K\t0.90\t0.70\t
timber sash glazing beads\tabout forty\t0.30\t0.80\t
sash pulley replacement\t140\t0.55\t1.45\texact
sash lift and lock fitting\t30\t0.35\t0.95\t
"""


def main(folder: Path) -> None:
    """Take a picture of each main view."""
    folder.mkdir(parents=True, exist_ok=True)
    faults: list[str] = []
    with (
        tempfile.TemporaryDirectory() as data,
        served(Path(data), history=6) as url,
        sync_playwright() as playwright,
    ):
        browser = browser_of(playwright)
        page = watched_page(profile_of(browser), faults)
        for name, take in _VIEWS.items():
            take(page, f"{url}/plan/1")
            page.wait_for_timeout(1500)
            page.screenshot(path=folder / f"{name}.png")
            print(f"{name}.png")
        browser.close()
    if faults:
        print("\n".join(faults), file=sys.stderr)
        raise SystemExit(1)


def _brief(page: Page, plan: str) -> None:
    page.goto(f"{plan}/brief")
    page.get_by_role("heading", name="What a click is worth").wait_for()


def _gather(page: Page, plan: str) -> None:
    page.goto(f"{plan}/gather")
    page.get_by_label("Pasted rows").fill(_PASTED)
    page.get_by_role("button", name="Read what is pasted").click()
    page.get_by_role("radio", name="refused").click()
    page.get_by_text("expected a number or a range").first.wait_for()


def _rivals(page: Page, plan: str) -> None:
    page.goto(f"{plan}/gather")
    page.get_by_role("option", name="Rivals").click()
    page.get_by_role("button", name="Three invented rivals").click()
    page.get_by_role("grid", name="Rivals' keywords").wait_for()


def _sift(page: Page, plan: str) -> None:
    page.goto(f"{plan}/sift")
    grid = page.get_by_role("grid", name="Keywords")
    grid.get_by_role("row").nth(8).click()
    page.get_by_text("What a click is worth").wait_for()


def _words(page: Page, plan: str) -> None:
    page.goto(f"{plan}/sift?view=words")
    page.get_by_role("grid", name="Words").get_by_role("row").nth(2).click()
    page.get_by_text("What is selected").wait_for()


def _one_by_one(page: Page, plan: str) -> None:
    page.goto(f"{plan}/sift?view=one&standing=in_reach&standing=stretch")
    page.get_by_role("article").wait_for()


def _map(page: Page, plan: str) -> None:
    page.goto(f"{plan}/sift?view=map")
    box = page.locator("canvas").bounding_box()
    assert box
    page.wait_for_timeout(300)
    page.mouse.move(box["x"] + 300, box["y"] + 120)
    page.mouse.down()
    page.mouse.move(box["x"] + 520, box["y"] + 260, steps=4)
    page.mouse.up()
    page.get_by_text("What is selected").wait_for()


def _negatives(page: Page, plan: str) -> None:
    api = plan.replace("/plan/", "/api/plans/")
    held = page.request.get(api).json()["sheet"]["texts"]
    ids = dict(zip(held["text"], held["id"], strict=True))
    wide = [ids["sash window repair"], ids["sash window restoration"]]
    page.request.post(f"{api}/keywords/edit", data={"ids": wide, "match": "phrase"})
    drop = [i for text, i in ids.items() if text.endswith((" jobs", " video", " marlshire"))]
    page.request.post(f"{api}/calls", data={"ids": drop, "call": "drop"})
    blocked = [{"text": text, "match": "phrase"} for text in ("training", "upvc", "second hand")]
    page.request.post(f"{api}/arrange/negatives", data={"items": blocked})
    page.goto(f"{plan}/arrange")
    page.get_by_role("grid", name="Ad groups").wait_for()
    page.keyboard.press("e")
    page.get_by_role("grid", name="Negatives").get_by_role("row").nth(1).click()


def _arrange(page: Page, plan: str) -> None:
    page.goto(f"{plan}/arrange")
    page.get_by_role("grid", name="Ad groups").get_by_text("Draught proofing").click()
    page.get_by_role("radio", name="Ads 1", exact=True).click()
    page.get_by_label("The ad as it would be read").wait_for()


def _ads(page: Page, plan: str) -> None:
    page.goto(f"{plan}/arrange")
    page.get_by_role("grid", name="Ad groups").get_by_role("row").nth(2).wait_for()
    page.keyboard.press("v")
    page.keyboard.press("3")
    page.get_by_role("grid", name="Ads").get_by_role("row").filter(has_text="Glazing").click()
    page.get_by_text("Thin double glazing").first.wait_for()


def _fit(page: Page, plan: str) -> None:
    page.goto(f"{plan}/fit")
    page.get_by_role("slider", name="The purse's edge").wait_for()
    page.get_by_role("grid", name="Bids").get_by_text("sash window restoration").first.click()
    page.get_by_text("What a month brings at").wait_for()


def _hand_over(page: Page, plan: str) -> None:
    page.goto(f"{plan}/hand-over")
    page.get_by_role("grid", name="Upload sheet").get_by_role("row").nth(1).wait_for()
    page.get_by_role("radio", name="The client’s sheet").click()
    page.frame_locator("iframe").get_by_role("heading", level=1).wait_for()


def _how_sure(page: Page, plan: str) -> None:
    page.goto(f"{plan}/fit?view=sure")
    page.get_by_role("heading", name="What would have to be true").wait_for()


def _versions(page: Page, plan: str) -> None:
    api = plan.replace("/plan/", "/api/plans/")
    for label, reason, spend in (
        ("800 a month", "what a third more would bring", 800),
        ("Twenty keywords", "fewer things to look after", 600),
    ):
        made = page.request.post(f"{api}/versions", data={"label": label, "reason": reason})
        other = f"{api.rsplit('/', 1)[0]}/{made.json()['id']}"
        changed = {"monthly_spend": spend, "max_keywords": None if spend == 800 else 20}
        page.request.patch(f"{other}/brief", data=changed)
    page.goto(f"{plan}/fit?view=versions")
    page.get_by_text("of months").nth(1).wait_for()


def _year(page: Page, plan: str) -> None:
    page.goto(f"{plan}/fit?view=year")
    page.get_by_text("small: 8 years in 10").wait_for()
    page.get_by_role("button", name="December by its days").click()
    page.get_by_role("table", name="Money by weekday and hour").wait_for()


def _reply(page: Page, plan: str) -> None:
    """Send the plan, some of it in phrase match, to the practice market."""
    page.goto(f"{plan}/hand-over")
    api = plan.replace("/plan/", "/api/plans/")
    texts = page.request.get(api).json()["sheet"]["texts"]["id"]
    page.request.post(f"{api}/keywords/edit", data={"ids": texts[:12], "match": "phrase"})
    page.request.post(f"{api}/practice", data={"level": "usual", "seed": 4})
    page.request.post(f"{api}/practice/send", data={})
    page.goto(f"{plan}/hand-over")
    page.get_by_role("radiogroup", name="What is shown").get_by_text("Practice").click()
    page.get_by_role("grid", name="The reply sheet").wait_for()


def _learn(page: Page, plan: str) -> None:
    page.goto(f"{plan}/learn")
    page.get_by_role("radiogroup", name="What is shown").get_by_text("The month").click()
    page.get_by_role("table", name="Why the customers differ").wait_for()
    page.get_by_text("Our word so far").wait_for()


def _terms(page: Page, plan: str) -> None:
    page.goto(f"{plan}/learn")
    page.get_by_role("radiogroup", name="What is shown").get_by_text("Terms").click()
    page.get_by_role("grid", name="Terms").get_by_role("row").nth(1).click()


def _clients(page: Page, plan: str) -> None:
    page.goto(plan.replace("/plan/1", "/clients"))
    page.get_by_text("to be closed").nth(1).wait_for()


_VIEWS = {
    "brief": _brief,
    "gather": _gather,
    "gather-rivals": _rivals,
    "sift": _sift,
    "sift-words": _words,
    "sift-one-by-one": _one_by_one,
    "sift-map": _map,
    "arrange": _arrange,
    "ads": _ads,
    "fit": _fit,
    "hand-over": _hand_over,
    "how-sure": _how_sure,
    "year": _year,
    "versions": _versions,
    "negatives": _negatives,
    "reply-sheet": _reply,
    "learn": _learn,
    "terms": _terms,
    "clients": _clients,
}

if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else FOLDER)
