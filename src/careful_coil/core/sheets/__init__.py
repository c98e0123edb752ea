"""Everything that is noted in fields, declared once: one sheet of fields for each thing."""

from collections.abc import Mapping

from careful_coil.core.sheets import bearings, connect, gear, insulation, intake, mechanics, winding
from careful_coil.core.sheets.field import Field, Sheet

SHEETS: Mapping[str, Sheet] = {
    s.name: s
    for station in (intake, insulation, gear, mechanics, bearings, winding, connect)
    for s in station.SHEETS
}
__all__ = ["SHEETS", "Field", "Sheet"]
