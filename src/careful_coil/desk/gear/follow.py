"""Which capacitor or device Next is at: a part of several takes it up, once for each it comes to."""

from collections.abc import Collection

from careful_coil.core.ledger import Judgement


def asked_of(judged: Judgement, kind: str, known: Collection[str], before: str) -> str:
    """Return the one of a kind that Next asks for, empty where it is none of them or was taken up before."""
    asks = judged.next.asks if judged.next is not None else ()
    own, _, name = (asks[0].part if asks else "").partition(":")
    return name if own == kind and name in known and name != before else ""
