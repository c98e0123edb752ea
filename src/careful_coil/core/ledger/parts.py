"""Which part of the motor a finding speaks of: `winding`, `lead:A`, `bearing:drive`, `hookup` …"""

import re
from dataclasses import replace

from careful_coil.core.job import Finding

# the first pattern that a code fits; \1 is the name in it
_PARTS: tuple[tuple[str, str], ...] = (
    (r"plate-known|plate-(?!ohms).*|rating|colour-clash|plate", "plate"),
    (r"tag|colours|lead-.*|unknown-lead|left-out|suspect|leads-proven|marks-.*|plug.*", "lead"),
    (
        r"insulation.*|winding.*|coil.*|ohms-.*|plate-ohms|surge|step-voltage|frame-.*|burn-.*",
        "winding",
    ),
    (r"drying.*|dew-point|test-volts|temperature-rise|work-.*", "winding"),
    (r"earth-bond|appliance", "earth"),
    (r"capacitor-left-in", "start-gear"),
    (r"start-gear|gear-work|start-device.*|trial-drop-(?:out|in)", "start-gear"),
    (r"cause|suspicion", "complaint"),
    (r"bearing-(?:seat-)?(drive|other)", r"bearing:\1"),
    (r"bearing-.*", "bearing"),
    (r"shaft-feel|coast-down|end-float|radial-play|start-volts|rub|mechanics", "shaft"),
    (r"bars.*", "commutator"),
    (r"brush", "brush"),
    (r"cord|relief", "cord"),
    (r"fan|seals|bolts-.*", r"\g<0>"),
    (r"supply.*", "supply"),
    (r"direction|rotation-reversed|turn.*|site-direction|site-phase-order", "direction"),
    (
        r"clamp-.*|low-run|line-ohms|hookup|before-power|by-marks|step-ohm|leftover|as-found",
        "hookup",
    ),
    (
        r"voltage-tags|installer|changed|diagram|.*hookup.*|short-circuit|open-coil|mixed.*",
        "hookup",
    ),
    (r"seen-terminals", "hookup"),
    (r"temporary", "temporary"),
    (r"assembly", "covers"),
    (r"kind.*", "kind"),
    (r"test-run|trial-.*", "run"),
    (r"site-.*", "site"),
)


def part_of(code: str) -> str:
    """Return the part that findings of a code speak of, `motor` where it is the whole."""
    for pattern, part in _PARTS:
        found = re.fullmatch(pattern, code)
        if found is not None:
            return found.expand(part)
    return "motor"


def with_part(finding: Finding) -> Finding:
    """Return a finding with its part; one that a rule has named stays."""
    return finding if finding.part else replace(finding, part=part_of(finding.code))
