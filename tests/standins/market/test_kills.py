"""The market and its worker killed at any moment: nothing lost, nothing done twice."""

import os
import re
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from milkwort.platforms.http import HttpPlatform
from milkwort.platforms.platform import table_rows
from tests.depth import cases
from tests.standins.market.conftest import OPENING, SHEETS

DAYS = 20


@contextmanager
def running(folder: Path, port: int) -> Iterator[tuple[subprocess.Popen[str], HttpPlatform]]:
    command = [
        sys.executable,
        "-m",
        "milkwort",
        "market",
        "--data",
        str(folder),
        "--port",
        str(port),
    ]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, start_new_session=True)
    assert process.stdout is not None
    found = re.search(r"http://\S+", process.stdout.readline())
    assert found
    try:
        with HttpPlatform(found.group()) as platform:
            yield process, platform
    finally:
        if process.poll() is None:
            process.terminate()
        process.wait(timeout=20)
        process.stdout.close()


def killed(process: subprocess.Popen[str]) -> None:
    """Kill the server and its worker at once."""
    os.killpg(process.pid, signal.SIGKILL)
    process.wait(timeout=20)


def test_killed_while_days_pass_it_goes_on_where_it_was(tmp_path: Path):
    def prepared(platform: HttpPlatform, once: str):
        account = platform.open_account(OPENING, once)
        for kind, text in SHEETS.items():
            number = platform.upload(account, kind, text.encode(), f"{once}{kind}")
            while platform.uploaded(account, number).state != "done":
                time.sleep(0.01)
        return account

    with running(tmp_path, 8890) as (process, platform):
        straight, broken = prepared(platform, "a"), prepared(platform, "b")
        platform.pass_days(straight, DAYS, "d")
        while platform.clock(straight).state == "running":
            time.sleep(0.05)
        platform.pass_days(broken, DAYS, "d")
        time.sleep(0.1)
        killed(process)
    for _ in range(cases(1, 12)):
        with running(tmp_path, 8890) as (process, platform):
            # what was acknowledged is known: the same key asks for no further days
            platform.pass_days(broken, DAYS, "d")
            time.sleep(0.25)
            killed(process)
    with running(tmp_path, 8890) as (_, platform):
        while platform.clock(broken).state == "running":
            time.sleep(0.05)
        assert platform.clock(broken).done == DAYS
        for level in ("day", "term"):
            one, other = platform.results(straight, level), platform.results(broken, level)
            assert other == one
        assert len(table_rows(one)) > DAYS


def test_killed_while_a_sheet_is_taken_in_every_row_is_answered_once(tmp_path: Path):
    rows = "".join(f"Search,Repair,word{i},exact,1,yes,k{i}\n" for i in range(3000))
    sheet = (SHEETS["keywords"].splitlines()[0] + "\n" + rows).encode()
    with running(tmp_path, 8891) as (process, platform):
        account = platform.open_account(OPENING | {"limits": {"keywords_per_group": 5000}}, "a")
        for kind in ("campaigns", "groups"):
            platform.upload(account, kind, SHEETS[kind].encode(), kind)
        number = platform.upload(account, "keywords", sheet, "u")
        time.sleep(0.4)
        killed(process)
    with running(tmp_path, 8891) as (process, platform):
        assert platform.upload(account, "keywords", sheet, "u") == number
        time.sleep(0.2)
        killed(process)
    with running(tmp_path, 8891) as (_, platform):
        while platform.uploaded(account, number).state != "done":
            time.sleep(0.05)
        reply = platform.reply(account, number)
        assert [row.row for row in reply] == list(range(2, 3002))
        assert {row.code for row in reply} == {"taken"}
        assert len(platform.live(account, "keywords")) == 3000


def test_a_worker_that_dies_is_started_again(tmp_path: Path):
    with running(tmp_path, 8892) as (process, platform):
        account = platform.open_account(OPENING, "a")
        number = platform.upload(account, "campaigns", SHEETS["campaigns"].encode(), "u")
        while platform.uploaded(account, number).state != "done":
            time.sleep(0.01)
        found = subprocess.run(["pgrep", "-P", str(process.pid)], capture_output=True, text=True,
                               check=True)  # fmt: skip
        os.kill(int(found.stdout.split()[0]), signal.SIGKILL)
        time.sleep(0.1)
        number = platform.upload(account, "groups", SHEETS["groups"].encode(), "v")
        for _ in range(200):
            if platform.uploaded(account, number).state == "done":
                break
            time.sleep(0.02)
        assert platform.uploaded(account, number).taken == 1
