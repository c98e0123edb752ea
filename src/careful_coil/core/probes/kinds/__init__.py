"""One probe a file, each with its `PROBE`."""
