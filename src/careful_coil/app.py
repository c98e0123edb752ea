"""Entry point: a headless verb, or the window. The only place that may import the desk."""

import os
import sys

from careful_coil.starting import few_collections

DEMO, VERSION, JOB_FILE = "--demo", "--version", ".ccjob"
COMPLETING = "_CAREFUL_COIL_COMPLETE"  # a shell asks what may stand there next


def main() -> None:
    """Run `careful-coil` with the arguments of the command line."""
    few_collections()
    arguments = sys.argv[1:]
    files = [a for a in arguments if a.lower().endswith(JOB_FILE)]
    if not os.environ.get(COMPLETING):
        if arguments == [VERSION]:
            from careful_coil.at_home import told_version

            print(f"careful-coil {told_version()}")
            sys.exit(0)
        if arguments[:1] == [DEMO] or len(files) == len(arguments):
            from careful_coil.desk.start import open_window  # headless verbs never import Qt

            sys.exit(open_window(demo=DEMO in arguments, files=files))
    from careful_coil.cli import run  # the window starts without it

    if arguments[:1] == ["walk"] and "--window" in arguments:
        from careful_coil.desk.walk_window import play_in_window, without_monitor  # needs Qt

        without_monitor()
        sys.exit(run(arguments, play_in_window))
    sys.exit(run(arguments))
