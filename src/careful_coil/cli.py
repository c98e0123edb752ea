"""Headless verbs: the same core without a window. Never imports Qt."""

import contextlib
import io
import os
import sys
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

import click
from pydantic import BaseModel

from careful_coil.cli_home import install_verb, remove_verb
from careful_coil.cli_shop import backup_verb, rebuild_verb, restore_verb
from careful_coil.core.errors import BadDocument, CoilError, NotKnownYet, WouldChange
from careful_coil.documents.base import Done, Refusal, compact, parse_json
from careful_coil.faults import write_down

if TYPE_CHECKING:
    from careful_coil.core.settings import Settings
    from careful_coil.walk.play import Walker

# What a verb alone needs is loaded when it is asked for: most of a short verb's time would be imports.
DONE, BAD_NEWS, REFUSED = 0, 1, 2
LONGEST_NUMBER = 9  # figures of a job's number
MOST_SEED = 2**32
VERBS = ("identify", "connect", "hookup", "judge", "walk", "report", "sum", "export", "import")
KEEPING = ("backup", "restore", "rebuild", "install-desktop", "remove-desktop")
Answer = tuple[BaseModel, str, int]


def run(arguments: list[str], walker: "Walker | None" = None) -> int:
    """Run a headless verb and return the exit status. No traceback reaches a user.

    `walker` plays a walk through the window, where one is asked for.
    """
    verb = arguments[0] if arguments else ""  # none: a shell asks what may stand there
    if verb and verb not in (*VERBS, *KEEPING) and not verb.startswith("-"):
        _complain(str(NotKnownYet(f"The verb “{verb}”", ", ".join((*VERBS, *KEEPING)))))
        return REFUSED
    for stream in (sys.stdout, sys.stderr):
        if isinstance(
            stream, io.TextIOWrapper
        ):  # a terminal of few characters shows the rest by number
            stream.reconfigure(errors="backslashreplace")
    try:
        status = commands.main(
            arguments, prog_name="careful-coil", standalone_mode=False, obj=walker
        )
        sys.stdout.flush()
        return int(status or DONE)
    except click.UsageError as error:
        _complain(f"{error.format_message()} Try: careful-coil {verb} --help")
    except click.ClickException as error:
        _complain(error.format_message())
    except CoilError as error:
        _complain(str(error))
    except BrokenPipeError:
        _let_go(sys.stdout)  # the reader of a stream went away: nothing is left to say
    except OSError as error:
        _let_go(sys.stdout)
        _complain(f"Not all was written: {error.strerror}.")
    except (KeyboardInterrupt, click.Abort):
        _complain("Stopped.")
    except Exception as error:  # nobody foresaw it: one line, the rest in the log
        _complain(write_down(error))
    return REFUSED


def _let_go(stream: TextIO) -> None:
    """Send what is left of a stream nowhere: it must not fail again at the end."""
    with contextlib.suppress(OSError, ValueError):
        os.dup2(os.open(os.devnull, os.O_WRONLY), stream.fileno())


@click.group(help="Careful Coil without a window.")
def commands() -> None:
    """Group of the headless verbs."""


def _complain(message: str) -> None:
    click.echo(message, err=True)


def _texts(sources: Iterable[str]) -> Iterator[tuple[str, str | CoilError]]:
    """Yield name and text of each document; of `-` a line at a time, as it comes."""
    for source in sources:
        if source == "-":
            for number, line in enumerate(iter(sys.stdin.buffer.readline, b""), 1):
                if line.strip():
                    yield f"line {number}", _decoded(line)
            continue
        try:
            yield source, _decoded(Path(source).read_bytes())
        except OSError as error:
            yield (
                source,
                BadDocument(source, error.strerror or "no file", "a file that can be read"),
            )


def _decoded(raw: bytes) -> str | CoilError:
    try:
        return raw.decode("utf-8-sig")
    except UnicodeDecodeError:
        return BadDocument("document", "bytes that are no UTF-8", "UTF-8 text")


def _answer_all(sources: tuple[str, ...], as_json: bool, answer: Callable[[str], Answer]) -> int:
    """Answer each document in order, flushed; a refused one does not stop the next."""
    worst = DONE
    for name, text in _texts(sources):
        try:
            if isinstance(text, CoilError):
                raise text
            document, words, status = answer(text)
            click.echo(compact(document) if as_json else words)
        except CoilError as error:
            status = REFUSED
            _complain(f"{name}: {error}")
            if as_json:
                click.echo(compact(Refusal(message=str(error))))
        sys.stdout.flush()
        worst = max(worst, status)
    return worst


_json = click.option("--json", "as_json", is_flag=True, help="One JSON document a line.")
_sources = click.argument("sources", nargs=-1, required=True, metavar="FILE…")


@commands.command("identify")
@_sources
@_json
def identify_verb(sources: tuple[str, ...], as_json: bool) -> int:
    """Tell what the leads are, from readings; - reads one document a line."""
    from careful_coil.cli_identify import identified

    def answer(text: str) -> Answer:
        document, words, bad = identified(text)
        return document, words, BAD_NEWS if bad else DONE

    return _answer_all(sources, as_json, answer)


@commands.command("connect")
@click.option("--arrangement", required=True)
@click.option("--rated", required=True, help="Rated volts as printed: 230/460.")
@click.option("--supply", required=True, help="Volts of the supply.")
@click.option("--hertz", help="Hertz of the supply; as the plate's by default.")
@click.option("--rated-hertz", default="60", show_default=True)
@click.option(
    "--start",
    type=click.Choice(["direct", "wye-delta", "part-winding"]),
    default="direct",
    show_default=True,
)
@click.option("--family", type=click.Choice(["wye", "delta"]), help="Where both can be.")
@click.option("--speed", help="low, medium, high, tap-1 …")
@click.option("--rotation", type=click.Choice(["cw", "ccw"]))
@click.option("--seen-from", type=click.Choice(["drive-end", "opposite"]))
@click.option("--coil-ohm", help="Ohms of one coil.")
@click.option("--inside", help="A variant of the arrangement, as constant-power.")
@click.option("--from", "from_hookup", metavar="HOOKUP", help="The present hookup: gives steps.")
@_json
def connect_verb(from_hookup: str | None, as_json: bool, **options: str | None) -> int:
    """Give the hookup for a supply."""
    from careful_coil.cli_connect import ConnectOptions, connection_of

    present = None
    if from_hookup:
        ((_, present_text),) = _texts([from_hookup]) if from_hookup != "-" else [_one_line()]
        if isinstance(present_text, CoilError):
            raise present_text
        present = present_text
    document, words = connection_of(ConnectOptions(**options), present)  # type: ignore[arg-type]
    click.echo(compact(document) if as_json else words)
    return DONE


def _one_line() -> tuple[str, str | CoilError]:
    for found in _texts(["-"]):
        return found
    raise BadDocument("standard input", "nothing", "one hookup document")


@commands.command("hookup")
@_sources
@click.option("--slips", is_flag=True, help="Also every single slip from the right hookup.")
@_json
def hookup_verb(sources: tuple[str, ...], slips: bool, as_json: bool) -> int:
    """Check a hookup as made; - reads one document a line."""
    from careful_coil.cli_connect import hookup_answer

    def answer(text: str) -> Answer:
        document, words, bad = hookup_answer(text, slips)
        return document, words, BAD_NEWS if bad else DONE

    return _answer_all(sources, as_json, answer)


@commands.command("judge")
@_sources
@click.option("--settings", "settings_file", help="A shop's limits, as JSON.")
@click.option("--at-c", type=float, help="The winding's °C, for a CSV of seconds and MΩ.")
@_json
def judge_verb(
    sources: tuple[str, ...], settings_file: str | None, at_c: float | None, as_json: bool
) -> int:
    """Give every finding on a job document, or on a tester's curve (CSV of seconds and MΩ)."""
    from careful_coil.cli_judge import judged

    settings = _settings_of(settings_file)

    def answer(text: str) -> Answer:
        document, words, bad = judged(text, settings, at_c)
        return document, words, BAD_NEWS if bad else DONE

    return _answer_all(sources, as_json, answer)


def _settings_of(file: str | None) -> "Settings":
    """Return a shop's settings, the usual ones where no file names others. Raises: BadDocument."""
    from careful_coil.core.settings import Settings

    if not file:
        return Settings()
    (_, text), *_rest = _texts([file])
    if isinstance(text, CoilError):
        raise text
    return Settings().changed(parse_json(text))


@commands.command("walk")
@_sources
@click.option(
    "--seed",
    type=click.IntRange(0, MOST_SEED),
    default=1,
    show_default=True,
    help="Of the meter's noise and of how answers are worded.",
)
@click.option("--window", is_flag=True, help="Through the real window, by keys.")
@click.option("--settings", "settings_file", help="A shop's limits, as JSON.")
@_json
@click.pass_obj
def walk_verb(
    walker: "Walker | None",
    sources: tuple[str, ...],
    seed: int,
    window: bool,
    settings_file: str | None,
    as_json: bool,
) -> int:
    """Play a hidden motor by what Next says and nothing else; - reads one document a line."""
    from careful_coil.cli_walk import walked

    settings = _settings_of(settings_file)
    if window and walker is None:
        raise BadDocument("walk", "--window", "the program itself: careful-coil walk --window")

    def answer(text: str) -> Answer:
        document, words, right = walked(text, seed, settings, walker if window else None)
        return document, words, DONE if right else BAD_NEWS

    return _answer_all(sources, as_json, answer)


@commands.command("report")
@click.argument("source", metavar="FILE")
@click.option("-o", "output", required=True, metavar="FILE.pdf")
@_json
def report_verb(source: str, output: str, as_json: bool) -> int:
    """Write the job sheet."""
    from careful_coil.cli_judge import reported

    if source == "-":
        raise BadDocument("report", "-", "one job document in a file")
    ((_, text),) = _texts([source])
    if isinstance(text, CoilError):
        raise text
    reported(text, Path(output))
    click.echo(compact(Done(verb="report", file=output)) if as_json else f"Written: {output}")
    return DONE


@commands.command("sum")
@click.argument("words", nargs=-1, metavar="NAME key=value …")
@click.option("--list", "listed", is_flag=True, help="Every sum with its inputs.")
@_json
def sum_verb(words: tuple[str, ...], listed: bool, as_json: bool) -> int:
    """Work out one bench sum."""
    from careful_coil.cli_sums import list_words, sum_answer, sum_words
    from careful_coil.documents.sum import sum_document

    if listed:
        click.echo(list_words())
        return DONE
    answer = sum_answer(words)
    click.echo(compact(sum_document(answer)) if as_json else sum_words(answer))
    return DONE


_shop = click.option("--shop", "shop", metavar="FOLDER", help="A shop other than this user's own.")


@commands.command("export")
@click.argument("number", metavar="NUMBER")
@click.option("-o", "output", required=True, metavar="FILE.ccjob")
@_shop
@_json
def export_verb(number: str, output: str, shop: str | None, as_json: bool) -> int:
    """Write a job of the shop with its files as one bundle."""
    from careful_coil.cli_records import export_job  # SQLAlchemy is slow to import
    from careful_coil.records.place import usual_shop

    if not number.isascii() or not number.isdecimal() or len(number) > LONGEST_NUMBER:
        raise BadDocument("export", number, "a job's number, such as 214")
    words = export_job(int(number), Path(output), Path(shop) if shop else usual_shop())
    click.echo(compact(Done(verb="export", file=output)) if as_json else words)
    return DONE


@commands.command("import")
@click.argument("source", metavar="FILE")
@_shop
@click.option("--accept", is_flag=True, help="Take what it changes in a job that is there.")
@_json
def import_verb(source: str, shop: str | None, accept: bool, as_json: bool) -> int:
    """Take a bundle, or a job document, into the shop; twice adds nothing.

    What would change a job that is there is listed (status 1) and taken with --accept.
    """
    from careful_coil.cli_records import import_job  # SQLAlchemy is slow to import
    from careful_coil.records.place import usual_shop

    try:
        words = import_job(Path(source), Path(shop) if shop else usual_shop(), accept)
    except WouldChange as error:
        _complain(f"{error} Nothing was taken. --accept takes it.")
        return BAD_NEWS
    if as_json:
        click.echo(compact(Done(verb="import", file=source)))
        _complain(words)
    else:
        click.echo(words)
    return DONE


for _verb in (backup_verb, restore_verb, rebuild_verb, install_verb, remove_verb):
    commands.add_command(_verb)
