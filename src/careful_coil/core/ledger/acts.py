"""What the Next card's key logs at Connect: dead work, each a cut, a joint, a lead covered, a tick."""

from collections.abc import Callable

from careful_coil.core.job import AnyBody
from careful_coil.core.job.at_connect import Insulated, Parted, StepTicked
from careful_coil.core.job.entries import JointMade

DEAD_WORK: dict[str, Callable[[tuple[str, ...]], AnyBody]] = {
    "joint": lambda names: JointMade(joint=names),
    "part": lambda names: Parted(leads=names),
    "insulate": lambda names: Insulated(lead=names[0]),
    "tick": lambda names: StepTicked(step=names[0]),
}
