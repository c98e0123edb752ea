"""The man page and the completion of shells, made from the verbs: python -m careful_coil.cli_pages."""

import re
import textwrap
from collections.abc import Iterator, Mapping

import click
from click.shell_completion import get_completion_class

from careful_coil.at_home import ASSETS, NAME, told_version
from careful_coil.cli import commands

SHELLS = ("bash", "zsh", "fish")
WIDE = 78  # characters of a line
VARIABLE = "_CAREFUL_COIL_COMPLETE"
ABOUT = (
    "Careful Coil is the bench companion of a motor rewind and repair shop. Without a verb it opens its window "
    "on this user's own shop; with one it does the same work without a window."
)
STATUS = (
    ("0", "done"),
    ("1", "done, and the answer is bad news"),
    ("2", "refused, with the reason on standard error"),
)
FILES = (
    (
        "~/.local/share/careful-coil/shop",
        "this user's own shop: log, photographs, sheets, settings",
    ),
    ("*.ccjob", "one job with its photographs, to be taken in elsewhere"),
    ("*.ccshop", "a whole shop as one verified file"),
)


def man_page(day: str) -> str:
    """Return the manual page; `day` as printed at its foot, YYYY-MM-DD."""
    lines = [
        f'.TH CAREFUL\\-COIL 1 "{day}" "Careful Coil {told_version()}" "User Commands"',
        ".SH NAME",
        f"{_roff(NAME)} \\- bench companion of a motor rewind and repair shop",
        ".SH SYNOPSIS",
        f".B {_roff(NAME)}",
        f"[\\fIFILE.ccjob\\fR | {_roff('--demo')} | {_roff('--version')}]",
        ".br",
        f".B {_roff(NAME)}",
        "\\fIVERB\\fR [\\fIOPTION\\fR ...] [\\fIARGUMENT\\fR ...]",
        ".SH DESCRIPTION",
        _roff(ABOUT),
        ".SH OPTIONS",
        *_entry("--demo", "Open the window on a demo shop: a copy that is thrown away."),
        *_entry("--version", "Print the version."),
        *_entry("FILE.ccjob", "Open the window and take this job in."),
        ".SH VERBS",
        *_verbs(),
        ".SH EXIT STATUS",
        *(line for status, words in STATUS for line in _entry(status, words)),
        ".SH FILES",
        *(line for file, words in FILES for line in _entry(file, words)),
        ".SH CAUTION",
        _roff(
            "The program is wired to no supply. Work on supplies is for qualified people under the local code."
        ),
    ]
    return "\n".join(wrapped for line in lines for wrapped in _wrapped(line)) + "\n"


def _wrapped(line: str) -> list[str]:
    """Return a line of text in lines as roff likes them; a request stays whole."""
    if line.startswith((".", "[", "\\fI")):
        return [line]
    return textwrap.wrap(line, WIDE, break_long_words=False, break_on_hyphens=False) or [""]


def _verbs() -> Iterator[str]:
    for name, verb in sorted(commands.commands.items()):
        words = " ".join(_usage(verb))
        yield f".SS {_roff(f'{name} {words}'.strip())}"
        yield _roff(_plain(verb.help or ""))
        for one in verb.params:
            if isinstance(one, click.Option):
                told = ", ".join(one.opts)
                if not one.is_flag:
                    told += f" {one.metavar or _metavar(one)}"
                usual = f" Usually {one.default}." if one.show_default and one.default else ""
                yield from _entry(told, f"{_plain(one.help or '')}{usual}")


def _usage(verb: click.Command) -> Iterator[str]:
    for one in verb.params:
        if isinstance(one, click.Argument):
            yield one.metavar or (one.name or "").upper()


def _metavar(one: click.Option) -> str:
    if isinstance(one.type, click.Choice):
        return "|".join(map(str, one.type.choices))
    return (one.name or "").upper().replace("_", "-")


def _plain(text: str) -> str:
    return re.sub(r"\s+", " ", text).strip()


def _entry(term: str, words: str) -> tuple[str, ...]:
    return (".TP", f".B {_roff(term)}", _roff(words) or _roff("See above."))


def _roff(text: str) -> str:
    """Return a text as roff takes it: hyphens as they are typed, no line that begins like a request."""
    told = text.replace("\\", "\\e").replace("-", "\\-")
    told = told.replace("…", "...").replace("–", "\\(en").replace("Ω", "ohm").replace("µ", "u")
    told = told.replace("“", '"').replace("”", '"').replace("°", " degrees ")
    return f"\\&{told}" if told.startswith((".", "'")) else told


def completions() -> Mapping[str, str]:
    """Return the completion script of each shell."""
    found = {}
    for shell in SHELLS:
        kind = get_completion_class(shell)
        if kind is None:
            raise RuntimeError(f"click completes no {shell} any more")
        made = kind(commands, {}, NAME, VARIABLE)
        found[shell] = made.source_template % made.source_vars()
    return found


def write() -> None:
    """Write the page and the scripts where the program carries them."""
    (ASSETS / f"{NAME}.1").write_text(man_page(DAY), encoding="utf-8")
    folder = ASSETS / "completion"
    folder.mkdir(exist_ok=True)
    for shell, text in completions().items():
        (folder / shell).write_text(text.rstrip() + "\n", encoding="utf-8")


DAY = "2026-12-01"  # of the last change to what it says

if __name__ == "__main__":
    write()
