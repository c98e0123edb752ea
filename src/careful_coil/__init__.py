"""Careful Coil: bench companion of a motor rewind and repair shop."""

import os

# none is used, and to look for them would read about every package that is installed
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
