"""The way from stage to stage on smaller screens, and what of each stage is cut off there."""

from playwright.sync_api import Page, expect

from tests.browser.conftest import stage

STAGES = ["Brief", "Gather", "Sift", "Arrange", "Fit", "Hand over", "Learn"]


def test_all_stages_are_on_the_trail_of_a_smaller_screen(sample: Page):
    sample.set_viewport_size({"width": 1024, "height": 700})
    for name in STAGES:
        stage(sample, name)
        link = sample.get_by_role("navigation", name="Stages").get_by_role("link", name=name)
        expect(link).to_be_in_viewport(ratio=1)
        nothing_is_cut(sample)


def test_all_stages_are_in_a_menu_where_the_screen_is_enlarged(sample: Page):
    """640×400 is 1280×800 at 200 % zoom."""
    sample.set_viewport_size({"width": 640, "height": 400})
    # a stage may hold lists of its own, some of which come late
    menu = sample.get_by_role("listbox", name="Stage", exact=True)
    for name in STAGES:
        sample.get_by_role("navigation", name="Stages").get_by_role("button").click()
        menu.get_by_role("option", name=name).click()
        expect(menu).to_have_count(0)
        nothing_is_cut(sample)
        height = sample.evaluate("document.querySelector('main').getBoundingClientRect().height")
        assert height >= 400 * 2 / 3, "the work keeps two thirds of the height"


CUT = """
() => {
  const scrolls = (part) => /auto|scroll/.test(getComputedStyle(part).overflowX);
  const reached = (part) => {
    for (let up = part.parentElement; up; up = up.parentElement) if (scrolls(up)) return true;
    return false;
  };
  return [...document.querySelectorAll("button, a, input, select, textarea, [role=slider]")]
    .filter((part) => part.checkVisibility())
    .filter((part) => {
      const box = part.getBoundingClientRect();
      return box.width > 2 && box.right > innerWidth + 1 && !reached(part);
    })
    .map((part) => `${part.innerText || part.ariaLabel} at ${part.getBoundingClientRect().right}`);
}
"""


def nothing_is_cut(page: Page) -> None:
    """Whatever can be worked lies within the window's width, or within a part that scrolls."""
    expect(page.get_by_role("region", name="Purse")).to_be_visible()
    expect(page.get_by_role("main").get_by_role("heading").first).to_be_visible()
    assert page.evaluate(CUT) == []
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
