"""A signature in the window: by initials and, where the shop wants it, a PIN."""

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from careful_coil.core.errors import RecordsRefused

if TYPE_CHECKING:
    from careful_coil.core.job import AnyBody


class Signing:
    """The PIN that was typed for the next signature; it is kept nowhere else."""

    def __init__(self, shop: Path) -> None:
        self._shop = shop
        self.pin = ""

    @property
    def wanted(self) -> bool:
        """Whether this shop's signatures want a PIN."""
        from careful_coil.records.pins import FILE  # its library is needed only where it signs

        return (self._shop / FILE).exists()

    def why_not(self, bodies: "Sequence[AnyBody]") -> str:
        """Return why a signature among these is not taken, empty where it is, or none is among them."""
        signed = next((b.signed for b in bodies if b.kind == "released"), None)
        if signed is None or not self.wanted:
            return ""
        from careful_coil.records.pins import why_not

        pin, self.pin = self.pin, ""
        try:
            return why_not(self._shop, signed, pin)
        except RecordsRefused as error:
            return str(error)

    def as_signed(self, bodies: "Sequence[AnyBody]") -> "list[AnyBody]":
        """Return the same, a signature saying that it was given with a PIN."""
        by_pin = self.wanted
        return [
            b.model_copy(update={"by_pin": True}) if by_pin and b.kind == "released" else b
            for b in bodies
        ]
