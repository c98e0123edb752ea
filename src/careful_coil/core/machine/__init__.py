"""This very motor as a machine: its parameters, its curves, how it starts, what its capacitor must be."""
