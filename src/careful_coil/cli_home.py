"""The verbs that make the program known to this user's desktop, and take it away again."""

import click

from careful_coil.at_home import install, remove
from careful_coil.documents.base import Done, compact

_json = click.option("--json", "as_json", is_flag=True, help="One JSON document a line.")


@click.command("install-desktop")
@_json
def install_verb(as_json: bool) -> int:
    """Put menu entry, icons, file type, man page and completion where this user's desktop looks for them."""
    files = install()
    for file in files:
        click.echo(compact(Done(verb="install-desktop", file=str(file))) if as_json else str(file))
    if not as_json:
        click.echo(f"{len(files)} files, no root was needed. remove-desktop takes them away again.")
    return 0


@click.command("remove-desktop")
@_json
def remove_verb(as_json: bool) -> int:
    """Take away what install-desktop put there; the shop is not touched."""
    files = remove()
    for file in files:
        click.echo(compact(Done(verb="remove-desktop", file=str(file))) if as_json else str(file))
    if not as_json:
        words = f"{len(files)} files taken away" if files else "Nothing of it was installed"
        click.echo(f"{words}. The shop was not touched.")
    return 0
