from __future__ import annotations

import platform
import sys

from bench import answers, browser, core, headless, learning, practice


def main() -> None:
    rows = [*headless.rows(), *core.rows(), *answers.rows(), *practice.rows(), *learning.rows()]
    if "--no-browser" not in sys.argv:
        rows += browser.rows()
    print(f"Python {platform.python_version()}, {platform.machine()}\n")
    width = max(len(what) for what, _, _ in rows)
    for what, figure, wanted in rows:
        print(f"{what:<{width}}  {figure:<62}  {wanted}")


if __name__ == "__main__":
    main()
