"""No control of any view is cut off or covered, from twice the size to a large screen."""

import re

import httpx
from playwright.sync_api import Page, expect

from tests.browser.conftest import TWO_FRAMES, settled

SIZES = {"small": (1024, 700), "large": (1920, 1080), "twice the size": (640, 400)}
STAGES = ("brief", "gather", "sift", "arrange", "fit", "hand-over", "learn")
OUT_OF_REACH = """() => {
  const found = [];
  const controls = "button, a[href], input, select, textarea, [role=radio], [role=slider]";
  for (const control of document.querySelectorAll(controls)) {
    const seen = control.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    const small = (box) => box.width < 3 || box.height < 3;
    // what only readers of the screen see has no place on it
    if (!seen || control.closest("[aria-hidden=true], [inert], [style*='clip']")) continue;
    if (small(control.getBoundingClientRect())) continue;
    control.scrollIntoView({ block: "nearest", inline: "nearest", behavior: "instant" });
    const box = control.getBoundingClientRect();
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
    const name = control.getAttribute("aria-label") || control.textContent.trim().slice(0, 40);
    const hit = document.elementFromPoint(x, y);
    if (x < 0 || y < 0 || x > innerWidth || y > innerHeight) found.push(`off: ${name}`);
    else if (!hit || !(control.contains(hit) || hit.contains(control) ||
             hit.closest("label")?.contains(control)))
      found.push(`covered: ${name} by ${hit?.tagName} ${hit?.textContent.slice(0, 30)}`);
  }
  const wide = document.documentElement.scrollWidth > innerWidth;
  return wide ? [...found, "the page is wider than its window"] : found;
}"""


TO_THE_TOP = "() => document.querySelectorAll('*').forEach((part) => part.scrollTo(0, 0))"


def test_every_control_of_every_view_is_in_reach_at_every_size(looked: str, page: Page):
    wrong: dict[str, list[str]] = {}
    for stage in STAGES:
        page.goto(f"{looked}/{stage}")
        page.get_by_role("heading", level=1).first.wait_for()
        views = page.get_by_role("radiogroup").first.get_by_role("radio")
        names = [views.nth(n).inner_text() for n in range(views.count())] or [""]
        for number, name in enumerate(names):
            if name:
                views.nth(number).click()
            settled(page)
            for size, (width, height) in SIZES.items():
                page.set_viewport_size({"width": width, "height": height})
                page.evaluate(TO_THE_TOP)
                page.evaluate(TWO_FRAMES)
                if found := page.evaluate(OUT_OF_REACH):
                    wrong[f"{stage} {name}, {size}"] = found
    assert wrong == {}


CUT_OFF = """() => [...document.querySelectorAll("[role=gridcell]")].filter((cell) =>
  cell.scrollWidth > cell.clientWidth + 1 && /^[−–\\d.,\\s]+$/.test(cell.textContent.trim())
).map((cell) => cell.textContent.trim())"""


def test_figures_of_large_money_are_read_whole(program: str, page: Page):
    made = httpx.post(f"{program}/api/plans", json={"name": "Large"}, timeout=60).json()
    api = f"{program}/api/plans/{made['id']}"
    brief = {"currency": "JPY", "monthly_spend": 45_000_000, "sale_value": 900_000}
    httpx.patch(f"{api}/brief", json=brief, timeout=60).raise_for_status()
    text = "keyword,volume,cpc_low,cpc_high,group,call,m01\n" + "".join(
        f"roof repair {n},{volume},{n * 90},{n * 400},Roof {n},keep,9\n"
        for n, volume in enumerate((2_400_000, 880_000, 32_000, 1_900), start=1)
    )
    tray = httpx.post(f"{api}/gather/text", json={"text": text, "name": "r.csv"}, timeout=60).json()
    httpx.post(f"{api}/gather/{tray['key']}/take", timeout=60).raise_for_status()
    for stage in ("sift", "arrange", "fit"):
        page.goto(f"{program}/plan/{made['id']}/{stage}")
        page.get_by_role("gridcell").first.wait_for()
        settled(page)
        assert page.evaluate(CUT_OFF) == [], stage
    page.get_by_role("radio", name="Year").click()
    sums = page.get_by_role("textbox", name=re.compile("Sum for"))
    expect(sums.first).to_have_value("45.0M")


def test_a_long_text_without_a_space_widens_no_page(plan: str, page: Page):
    """Pasted into a figure's blank it stays there, and in the line that refuses it."""
    for stage, blank in (
        ("fit", "Purse"),
        ("brief", "Sale value"),
        ("arrange", "Bid of the group"),
    ):
        page.goto(f"{plan}/{stage}")
        for width, height in SIZES.values():
            page.set_viewport_size({"width": width, "height": height})
            field = page.get_by_role("textbox", name=blank, exact=True)
            field.fill("n" * 400)
            field.press("Enter")
            expect(page.get_by_text(f"{blank}: expected a number")).to_be_visible()
            page.evaluate(TWO_FRAMES)
            assert not page.evaluate("document.documentElement.scrollWidth > innerWidth")
            field.press("Escape")
