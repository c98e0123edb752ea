"""PINs of those who sign, where a shop wants them: kept as Argon2 hashes beside the records in pins.json."""

import json
import re
from pathlib import Path

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from careful_coil.core.errors import BadValue, CoilError, RecordsRefused
from careful_coil.documents.base import parse_json
from careful_coil.whole import write_whole

FILE = "pins.json"
WANTED = "initials and a PIN of 4 to 12 figures, such as AB 4711; to change it AB, the old, the new"
_PIN = re.compile(r"\d{4,12}")
_INITIALS = re.compile(r"[A-Z]{1,6}")


def plain(initials: str) -> str:
    """Return initials as they are compared: AB, A.B. and ab are one."""
    return re.sub(r"[^A-Z]", "", initials.upper())


def read_pins(shop: Path) -> dict[str, str]:
    """Return the hashes by initials, none where the shop wants no PINs. Raises: RecordsRefused."""
    file = shop / FILE
    try:
        told = parse_json(file.read_text(encoding="utf-8"))
    except FileNotFoundError:
        return {}
    except (OSError, UnicodeDecodeError, CoilError) as error:
        raise RecordsRefused(f"{file} cannot be read: nobody can sign. {error}") from None
    return {str(k): str(v) for k, v in told.items()}


def why_not(shop: Path, initials: str, pin: str) -> str:
    """Return why somebody may not sign, empty where he may: his PIN is right, or none are wanted here."""
    pins = read_pins(shop)
    if not pins:
        return ""
    kept = pins.get(plain(initials))
    if kept is None:
        return f"{initials} has no PIN here: give one in the shop settings, then sign."
    if not pin:
        return f"The PIN of {initials} first: it is asked where it is signed."
    return "" if _fits(kept, pin) else f"That is not the PIN of {initials}."


def change_pin(shop: Path, text: str) -> str:
    """Set a PIN as typed, `AB 4711`; an old one is needed to change it: `AB 4711 8822`, or `AB 4711 none`.

    Returns what is to be said. Raises: BadValue, RecordsRefused.
    """
    who, *rest = text.split() or [""]
    name = plain(who)
    if not _INITIALS.fullmatch(name) or not 1 <= len(rest) <= 2:
        raise BadValue("initials and figures", WANTED)
    pins = read_pins(shop)
    kept = pins.get(name)
    if kept is not None and (len(rest) != 2 or not _fits(kept, rest[0])):
        raise BadValue("another PIN", f"the PIN {name} has now, then the new one")
    wanted = rest[-1]
    if wanted == "none" and kept is not None:
        del pins[name]
        _write(shop, pins)
        return f"{name} has no PIN any more."
    if not _PIN.fullmatch(wanted) or (kept is None and len(rest) != 1):
        raise BadValue("no PIN", WANTED)
    _write(shop, {**pins, name: PasswordHasher().hash(wanted)})
    return f"{name} signs with a PIN now; so must all who sign here."


def _fits(kept: str, pin: str) -> bool:
    try:
        return PasswordHasher().verify(kept, pin)
    except (VerificationError, InvalidHashError):
        return False


def _write(shop: Path, pins: dict[str, str]) -> None:
    try:
        if not pins:  # the last one ended: none are wanted any more
            (shop / FILE).unlink()
            return
        write_whole(shop / FILE, (json.dumps(pins, indent=1, sort_keys=True) + "\n").encode())
        (shop / FILE).chmod(0o600)
    except OSError as error:
        raise RecordsRefused(f"The PIN was not kept: {error.strerror}.") from None
