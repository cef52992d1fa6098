"""The command `milkwort`."""

from __future__ import annotations

import ctypes
import gc
import os
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from pathlib import Path
from typing import Annotated, Any

import typer

from milkwort import __version__
from milkwort.choices import Format, LearningPolicy, Paper, TruthLevel
from milkwort.core.errors import MilkwortError

__all__ = ["app"]

app = typer.Typer(
    add_completion=False,
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    help="Plan a small paid-search budget: which searches to pay for, what to bid, what it brings.",
)


Made = tuple[bytes, list[str]]
"""What a command makes, and what there is to say of it."""


def _answer(made: Callable[[], Made], out: Path | None) -> None:
    """Write what a command makes, and say on the side what there is to say of it."""
    try:
        with _own_stdout():
            content, remarks = made()
        _write(content, out)
    except (MilkwortError, OSError) as error:
        _fail(_said(error))
    for remark in remarks:
        typer.echo(f"milkwort: {remark}", err=True)


def _version(wanted: bool) -> None:
    if wanted:
        typer.echo(f"milkwort {__version__}")
        raise typer.Exit


@app.callback()
def _main(
    version: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Say the version.")
    ] = False,
) -> None:
    # what is imported stays: looking through it again and again takes a third of the start
    gc.set_threshold(200_000, 50, 1000)


@app.command()
def plan(
    brief: Annotated[Path, typer.Argument(help="The brief, TOML.")],
    keywords: Annotated[Path, typer.Argument(help="The keywords, CSV.")],
    out: Annotated[Path | None, typer.Option(help="Where to write; the terminal if left out.")] = (
        None
    ),
    format: Annotated[Format, typer.Option(help="json, csv or table.")] = Format.JSON,
    workings: Annotated[
        str | None, typer.Option(help="Show the arithmetic of this keyword instead.")
    ] = None,
) -> None:
    """Run a plan without a server: a brief and a file of keywords in, a result out."""

    def made() -> Made:
        from milkwort.commands import planned

        return planned(brief, keywords, format, workings)

    _answer(made, out)


@app.command()
def compare(
    first: Annotated[Path, typer.Argument(help="The first brief, TOML.")],
    first_keywords: Annotated[Path, typer.Argument(help="Its keywords, CSV.")],
    other: Annotated[Path, typer.Argument(help="The other brief, TOML.")],
    other_keywords: Annotated[Path, typer.Argument(help="Its keywords, CSV.")],
    out: Annotated[Path | None, typer.Option(help="Where to write; the terminal if left out.")] = (
        None
    ),
) -> None:
    """Set two plans side by side: what differs, what each brings, how often one beats the other."""

    def made() -> Made:
        from milkwort.commands import compared

        return compared((first, first_keywords), (other, other_keywords))

    _answer(made, out)


@app.command()
def check(
    plan_file: Annotated[Path, typer.Argument(metavar="PLAN.json", help="A plan’s own file.")],
) -> None:
    """Say what to look at before a plan is handed over; exit 1 where something must be mended."""
    try:
        with _plan_of(plan_file) as (work, plan_id):
            from milkwort.api.handover.routes import checks_of

            found = checks_of(work, work.plan(plan_id))
    except (MilkwortError, OSError) as error:
        _fail(_said(error))
    for one in found:
        mark = "must be mended" if one.must else "to look at"
        names = f" ({', '.join(one.names)})" if one.names else ""
        typer.echo(f"{mark}: {one.text}{names}")
    if not found:
        typer.echo("Nothing stands out.")
    raise typer.Exit(1 if any(one.must for one in found) else 0)


@app.command()
def report(
    plan_file: Annotated[Path, typer.Argument(metavar="PLAN.json", help="A plan’s own file.")],
    out: Annotated[Path, typer.Option(help="Where to write: .pdf, .html, .xlsx or .csv.")],
    logo: Annotated[Path | None, typer.Option(help="PNG or SVG for the letter-head.")] = None,
    paper: Annotated[Paper, typer.Option(help="a4 or us-letter.")] = Paper.A4,
) -> None:
    """Write the client's sheet of a plan."""
    try:
        with _plan_of(plan_file) as (work, plan_id):
            from milkwort.api.handover.report import written_report
            from milkwort.core.plan.draws import draw_month
            from milkwort.formats.report_files import checked_logo, logo_of
            from milkwort.store.report_logos import report_logo

            plan = work.plan(plan_id)
            draws = draw_month(plan.result)
            assert draws is not None
            with work.database.read() as session:
                picture = logo_of(report_logo(session, plan_id))
            if logo is not None:
                picture = checked_logo(logo.read_bytes())
            kind = out.suffix.removeprefix(".").lower()
            content = written_report(plan, draws, kind, paper.value, picture)
        out.write_bytes(content)
    except (MilkwortError, OSError) as error:
        _fail(_said(error))


@app.command()
def practice(
    brief: Annotated[Path, typer.Argument(help="The brief, TOML.")],
    keywords: Annotated[Path, typer.Argument(help="The keywords, CSV.")],
    out: Annotated[Path | None, typer.Option(help="Where to write; the terminal if left out.")] = (
        None
    ),
    months: Annotated[int, typer.Option(min=1, max=12, help="How many months.")] = 1,
    seed: Annotated[int, typer.Option(min=0, max=2**31, help="Of the hidden truth.")] = 1,
    seeds: Annotated[
        str | None, typer.Option(help="Many truths, as 1-200: one file with all runs.")
    ] = None,
    level: Annotated[TruthLevel, typer.Option(help="How far the truth lies from the plan.")] = (
        TruthLevel.USUAL
    ),
    policy: Annotated[
        LearningPolicy, typer.Option(help="What is done with a month that is over.")
    ] = LearningPolicy.ADVICE,
    start: Annotated[
        datetime | None,
        typer.Option(formats=["%Y-%m-%d"], help="The first day; next month’s if left out."),
    ] = None,
) -> None:
    """Run a plan in the practice market, a simulated platform: plan, live a month, learn, again."""

    def made() -> Made:
        from milkwort.commands import practised

        return practised(brief, keywords, months, seed, seeds, level, policy, start, _progress)

    _answer(made, out)


@app.command()
def learn(
    brief: Annotated[Path, typer.Argument(help="The brief, TOML.")],
    keywords: Annotated[Path, typer.Argument(help="The keywords, CSV.")],
    results: Annotated[Path, typer.Argument(help="What happened, CSV, a row a keyword and day.")],
    terms: Annotated[Path | None, typer.Option(help="What people typed, CSV.")] = None,
    as_of: Annotated[
        datetime | None,
        typer.Option(formats=["%Y-%m-%d"], help="Up to which is reported; the last day if out."),
    ] = None,
    out: Annotated[Path | None, typer.Option(help="Where to write; the terminal if left out.")] = (
        None
    ),
) -> None:
    """Say what results teach: verdicts, terms, corrections, why the month differs."""

    def made() -> Made:
        from milkwort.commands import learned

        return learned(brief, keywords, results, terms, as_of)

    _answer(made, out)


@app.command()
def market(
    data: Annotated[Path | None, typer.Option(help="Folder of the market’s own database.")] = None,
    port: Annotated[int, typer.Option(min=1, max=65535, help="Port to listen on.")] = 8790,
    host: Annotated[str, typer.Option(help="Address to listen on.")] = "127.0.0.1",
) -> None:
    """Serve the practice market by itself: a simulated platform to hand over to."""
    from milkwort.main import run_market

    try:
        run_market(data, host, port)
    except (MilkwortError, OSError) as error:
        _fail(_said(error))


@app.command()
def serve(
    data: Annotated[Path | None, typer.Option(help="Folder of the database.")] = None,
    port: Annotated[int | None, typer.Option(help="Port to listen on.")] = None,
    host: Annotated[str | None, typer.Option(help="Address to listen on.")] = None,
) -> None:
    """Serve the web client and its API, on this machine only unless told otherwise."""
    _serve(data, port, host, sample=False, fresh=False)


@app.command()
def demo(
    data: Annotated[Path | None, typer.Option(help="Folder of the database.")] = None,
    port: Annotated[int | None, typer.Option(help="Port to listen on.")] = None,
    host: Annotated[str | None, typer.Option(help="Address to listen on.")] = None,
    fresh: Annotated[bool, typer.Option(help="Start the sample anew.")] = False,
) -> None:
    """Serve with the sample plan loaded; what was entered before is kept."""
    _serve(data, port, host, sample=True, fresh=fresh)


def _serve(
    data: Path | None, port: int | None, host: str | None, *, sample: bool, fresh: bool
) -> None:
    from milkwort.main import run

    given: dict[str, Any] = {"data": data, "port": port, "host": host}
    try:
        run({k: v for k, v in given.items() if v is not None}, sample=sample, fresh=fresh)
    except (MilkwortError, OSError) as error:
        _fail(_said(error))


@contextmanager
def _own_stdout() -> Iterator[None]:
    """Keep what the solver's library prints of its own out of the result: it goes to stderr."""
    libc, kept = ctypes.CDLL(None), os.dup(1)
    sys.stdout.flush()
    os.dup2(2, 1)
    try:
        yield
    finally:
        libc.fflush(None)
        os.dup2(kept, 1)
        os.close(kept)


@contextmanager
def _plan_of(path: Path) -> Iterator[tuple[Any, int]]:
    """Open a plan's own file in a place of its own, which is gone afterwards."""
    import tempfile

    from milkwort.api.http.app import opened
    from milkwort.api.plan.from_file import add_document
    from milkwort.formats.plan_json import read_plan_json
    from milkwort.settings import Settings

    document = read_plan_json(path.read_bytes())
    with tempfile.TemporaryDirectory() as folder:
        work = opened(Settings(data=Path(folder)))
        try:
            with work.database.begin() as session:
                plan_id, _ = add_document(session, document)
            yield work, plan_id
        finally:
            work.close()


def _progress(done: int, of: int) -> None:
    if sys.stderr.isatty():
        typer.echo(f"\r{done} of {of} truths", err=True, nl=done == of)


def _write(content: bytes, out: Path | None) -> None:
    if out is None:
        sys.stdout.buffer.write(content if content.endswith(b"\n") else content + b"\n")
    else:
        out.write_bytes(content)


def _said(error: Exception) -> str:
    if isinstance(error, OSError) and error.filename:
        return f"{error.filename}: {error.strerror}"
    return str(error)


def _fail(message: str) -> None:
    typer.echo("milkwort: " + " ".join(message.split()), err=True)
    raise typer.Exit(2)
