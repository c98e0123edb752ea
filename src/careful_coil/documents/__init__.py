"""The documents of the open formats, as models; what comes in is checked, what goes out is typed."""
