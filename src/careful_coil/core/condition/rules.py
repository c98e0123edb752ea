"""What Insulation must have settled: coils, the wall to the frame and between windings, the rest."""

from careful_coil.core.condition.again_rules import again_findings
from careful_coil.core.condition.appliance import appliance_finding
from careful_coil.core.condition.beside_wall import sensor_findings
from careful_coil.core.condition.bond import bond_finding
from careful_coil.core.condition.coil_rules import coil_findings
from careful_coil.core.condition.later_rules import later_findings
from careful_coil.core.condition.wall import Wall
from careful_coil.core.condition.wall_beside import beside_findings
from careful_coil.core.condition.wall_rules import wall_findings
from careful_coil.core.identify import Identification, Naming
from careful_coil.core.job import Finding, Job
from careful_coil.core.settings import Settings


def condition_findings(
    job: Job, found: Identification | None, naming: Naming, wall: Wall, settings: Settings
) -> list[Finding]:
    """Return findings on the winding's condition."""
    return [
        *coil_findings(job, found, naming, wall, settings),
        *wall_findings(job, wall, settings),
        *sensor_findings(job, wall),
        *beside_findings(job, wall, settings),
        *later_findings(job, wall, settings),
        *again_findings(job, found, wall),
        bond_finding(job, settings),
        *((tested,) if (tested := appliance_finding(job, settings)) else ()),
    ]
