"""Where this user's own shop is kept."""

from pathlib import Path

from platformdirs import user_data_path

NAME = "careful-coil"


def usual_shop() -> Path:
    """Return the folder of this user's own shop: the one the window opens."""
    return user_data_path(NAME) / "shop"
