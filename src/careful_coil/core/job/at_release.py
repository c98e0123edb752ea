"""What is logged at Release besides waivers and the signature: another way out, work on site, a follow-up."""

from typing import Annotated, Literal

from pydantic import Field

from careful_coil.core.choices import one_of
from careful_coil.core.job.body import Body, LongText, ShortText


class LetGo(Body):
    """It leaves as it came, or as scrap, with the reason; no way takes the entry back."""

    kind: Literal["let-go"] = "let-go"
    how: Literal["unrepaired", "scrap", ""]
    reason: LongText = ""


class OnSite(Body):
    """The work is done where the motor stands: a gate list of its own."""

    kind: Literal["on-site"] = "on-site"
    on: bool = True


PLACES = ("bench", "site")


def read_place(text: str) -> OnSite:
    """Return where the work is done, as typed. Raises: BadValue."""
    return OnSite(on=one_of(text, PLACES) == "site")


class FollowsUp(Body):
    """This job is a later complaint about a motor that was released: the job before it."""

    kind: Literal["follows-up"] = "follows-up"
    job: ShortText
    number: Annotated[int, Field(ge=1, le=10**9)]
