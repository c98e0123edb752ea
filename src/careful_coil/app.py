"""Entry point: a headless verb, or the window. The only place that may import the desk."""

import sys

from careful_coil.starting import few_collections

WINDOW_WORDS = ("--demo",)


def main() -> None:
    """Run `careful-coil` with the arguments of the command line."""
    few_collections()
    arguments = sys.argv[1:]
    if not arguments or arguments[0] in WINDOW_WORDS:
        from careful_coil.desk.start import open_window  # headless verbs never import Qt

        sys.exit(open_window(demo="--demo" in arguments))
    from careful_coil.cli import run  # the window starts without it

    if arguments[0] == "walk" and "--window" in arguments:
        from careful_coil.desk.walk_window import play_in_window, without_monitor  # needs Qt

        without_monitor()
        sys.exit(run(arguments, play_in_window))
    sys.exit(run(arguments))
