"""The parts of Intake, one idea each: counter, plate, kind, leads, joints, condition, what it may cost."""
