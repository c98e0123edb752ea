"""What the hands find: shaft, bearings, brushes, commutator, lead insulation, what was changed."""
