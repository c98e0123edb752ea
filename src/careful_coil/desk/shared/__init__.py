"""What the parts of every station are built of."""
