"""The stations of the bench, one module each."""
