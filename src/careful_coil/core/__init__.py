"""The heart: pure computation, no window, no files, no clock."""
