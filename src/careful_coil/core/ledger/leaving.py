"""What is typed at Release, read: a line set aside, another way out, the signature."""

from careful_coil.core.errors import BadValue
from careful_coil.core.job.at_release import LetGo
from careful_coil.core.job.entries import Released, Waived
from careful_coil.core.ledger.gate import WAYS_OUT, way_out
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.law import initials
from careful_coil.core.settings import Settings

WORDS = (
    "mechanics",
    "voltage-tags",
)  # what a written word may say; nothing that a run or a meter proves
INITIALS = 40  # characters an entry holds of them


def read_waiver(text: str, judged: Judgement, who: str, settings: Settings) -> Waived:
    """Return a line set aside as typed: its code, initials of a second person, the reason.

    `who` is at the bench. Raises: BadValue for a line that is not open or that can hurt, for one's own
    initials, and for another's than the foreman's where the shop names one.
    """
    code, _, rest = text.partition(" ")
    second, _, reason = rest.strip().partition(" ")
    gate = {f.code: f for f in judged.gate}
    free = ", ".join(c for c, f in gate.items() if f.waivable) or "none now"
    if code not in gate or not second or not reason.strip() or len(second) > INITIALS:
        raise BadValue(text, f"a code ({free}), initials and a reason")
    if not gate[code].waivable:
        raise BadValue(code, f"one that may be waived ({free})", "What can hurt is never waived.")
    foreman = settings.foreman
    if foreman and second.upper() != foreman.upper():
        raise BadValue(second, f"{foreman}: this shop's foreman waives lines")
    if initials(second) == initials(who):
        raise BadValue(second, "the initials of a second person")
    return Waived(code=code, reason=reason.strip(), second=second)


def read_let_go(text: str) -> LetGo:
    """Return another way out as typed: unrepaired or scrap, and the reason; nothing takes it back.

    Raises: BadValue.
    """
    how, _, reason = text.strip().partition(" ")
    if how and (how.lower() not in WAYS_OUT or not reason.strip()):
        raise BadValue(text, "unrepaired or scrap, and the reason; nothing takes it back")
    return LetGo.model_validate({"how": how.lower(), "reason": reason.strip()})


def may_attest(judged: Judgement, item: str) -> bool:
    """Whether a written word on what was done outside is wanted for a line of the gate."""
    if way_out(judged.job):
        return False
    told = item in (judged.job.attested or {})
    still = any(f.code == item and (told or f.verdict != "good") for f in judged.findings)
    return item in WORDS and still


def read_signature(text: str, judged: Judgement) -> Released:
    """Return the signature. Raises: BadValue while something stands open, or it goes another way."""
    if judged.job.let_go is not None:
        raise BadValue(text, "no way out but the signature: it was let go unrepaired")
    if judged.gate:
        raise BadValue(text, f"nothing open first; {judged.gate[0].subject.lower()}")
    if not text or len(text) > INITIALS:
        raise BadValue(text, f"initials, at most {INITIALS} characters")
    return Released(signed=text)
