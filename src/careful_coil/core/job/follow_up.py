"""A later complaint about a motor that was released: a job of its own, linked to the one before."""

from collections.abc import Sequence

from careful_coil.core.job.at_release import FollowsUp
from careful_coil.core.job.entries import AnyBody, Entry
from careful_coil.core.job.fold import live
from careful_coil.core.job.noted import Noted

CARRIED = ("plate", "leads")  # what stays true of the motor
OF_TICKET = ("name", "customer", "phone")


def follow_up(job: str, number: int, log: Sequence[Entry]) -> list[AnyBody]:
    """Return the first entries of a follow-up: whose motor it is, its plate and leads, the job before."""
    found: list[AnyBody] = [FollowsUp(job=job, number=number)]
    for entry in live(log)[0]:
        body = entry.said
        ticket = isinstance(body, Noted) and body.sheet == "ticket" and body.field in OF_TICKET
        if ticket or body.topic in CARRIED:
            found.append(body)
    return found
