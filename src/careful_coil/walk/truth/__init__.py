"""What a motor really is, and what it shows of itself. Knows no job, no finding, no rule."""

from careful_coil.walk.truth.world import World

__all__ = ["World"]
