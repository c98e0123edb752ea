"""What is entered at Release stands under somebody's initials."""

from careful_coil.core.errors import BadValue
from careful_coil.desk.session import Session


def initials(session: Session) -> None:
    """Raise BadValue while nobody at the bench has given initials."""
    if not session.who:
        raise BadValue("nobody at the bench", "your initials first, at the foot of the rack")
