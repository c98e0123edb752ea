"""What nobody foresaw: one plain line for who works, the rest in a log that is kept small.

The log holds where in the program it happened, never what was in a job: no message of an exception, no value.
"""

import contextlib
import faulthandler
import logging
import sys
import traceback
from collections.abc import Callable
from pathlib import Path
from types import TracebackType

from platformdirs import user_state_path

NAME = "careful-coil"
MOST_BYTES, MOST_FILES = 500_000, 3
SHOWN_LINES = 400  # of the log in a report
_log = logging.getLogger(NAME)


def log_file() -> Path:
    """Return where the log is kept: the user's state folder."""
    return Path(user_state_path(NAME)) / "fault.log"


def start_log() -> None:
    """Begin to write the log; a folder that cannot be written leaves it out."""
    from logging.handlers import RotatingFileHandler  # loads what few starts need

    if any(isinstance(one, RotatingFileHandler) for one in _log.handlers):
        return
    file = log_file()
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        handler = RotatingFileHandler(
            file, maxBytes=MOST_BYTES, backupCount=MOST_FILES, encoding="utf-8"
        )
    except OSError:
        return
    handler.setFormatter(logging.Formatter("%(asctime)s %(message)s"))
    _log.addHandler(handler)
    _log.propagate = False


def write_down(error: BaseException, where: TracebackType | None = None) -> str:
    """Write an exception into the log by its kind and place; return the line that is said."""
    start_log()
    frames = traceback.extract_tb(where or error.__traceback__)
    told = [f"{_short(f.filename)}:{f.lineno} {f.name}" for f in frames]
    _log.error("%s\n  %s", type(error).__name__, "\n  ".join(told))
    return (
        f"Something went wrong inside ({type(error).__name__}); what was recorded stands. "
        f"Help, Write a report; the log is {log_file()}."
    )


def catch_all(say: Callable[[str], None]) -> None:
    """Let every exception that nobody caught be written down and said."""

    def caught(
        kind: type[BaseException], error: BaseException, where: TracebackType | None
    ) -> None:
        if issubclass(kind, KeyboardInterrupt):
            sys.__excepthook__(kind, error, where)
            return
        say(write_down(error, where))

    sys.excepthook = caught
    with contextlib.suppress(OSError):  # of the libraries below: open as long as the program runs
        log_file().parent.mkdir(parents=True, exist_ok=True)
        faulthandler.enable(log_file().with_name("crash.log").open("a", encoding="utf-8"))


def report() -> str:
    """Return what helps to mend the program: versions and the end of the log, nothing of any customer."""
    import platform
    from importlib.metadata import version

    try:
        lines = log_file().read_text(encoding="utf-8", errors="replace").splitlines()
    except OSError:
        lines = ["no log"]
    head = [
        f"{NAME} {version(NAME)}",
        f"Python {platform.python_version()}, {platform.system()} {platform.release()}",
    ]
    return "\n".join((*head, "", *lines[-SHOWN_LINES:])) + "\n"


def _short(file: str) -> str:
    """Return a module's file without the folders before it."""
    parts = Path(file).parts
    return "/".join(parts[-3:])
