"""The test run: how to start, what to expect, what was read, what it means."""
