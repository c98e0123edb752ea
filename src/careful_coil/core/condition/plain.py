"""What the findings on the winding mean for the customer: a sentence each, the figure beside it."""

from collections.abc import Sequence

from careful_coil.core.condition.bond import NO_EARTH
from careful_coil.core.job import Finding
from careful_coil.core.values import show_figure

# by code and verdict; what is not here has no meaning of its own outside the shop
SENTENCES: dict[str, dict[str, str]] = {
    "coils-balanced": {
        "good": "The windings are even: no sign of shorted turns or bad joints.",
        "watch": "One winding differs a little from the others: it may run, and should be looked at again.",
        "hold": "One winding differs too much from the others: it must not run like this.",
        "unproven": "Whether the windings are even has not been shown yet.",
    },
    "insulation": {
        "good": "The winding is well insulated from the frame.",
        "hold": "The insulation to the frame is too weak: current could leak to the case. It must not be connected.",
        "unproven": "Whether the winding is insulated from the frame has not been shown yet.",
    },
    "insulation-between": {
        "good": "The windings are insulated from each other.",
        "hold": "Two windings touch electrically: it would burn out. It must not be connected.",
        "unproven": "Whether the windings are insulated from each other has not been shown yet.",
    },
    "insulation-index": {
        "good": "The insulation is dry and clean.",
        "hold": "The insulation is damp or dirty and will fail early: it needs cleaning and drying.",
        "watch": "The insulation has grown brittle with age: plan a rewind.",
        "unproven": "Whether the insulation is dry has not been shown yet.",
    },
    "insulation-trend": {
        "watch": "The insulation is still good but much weaker than at an earlier visit: look for damp or heat."
    },
    "earth-bond": {
        "good": "The case is safely earthed.",
        "hold": "The earth connection of the case is bad: a fault would make it live. It must not be connected.",
        "unproven": "The earth connection has not been measured after closing the motor.",
    },
    "temperature-rise": {
        "good": "It stays within the heat its insulation can bear.",
        "watch": "It runs close to the heat its insulation can bear.",
        "hold": "It runs hotter than its insulation can bear: its life would be short.",
    },
    "surge": {
        "good": "The turns of the windings are sound under test pulses.",
        "watch": "Test pulses show a difference between windings: a hidden fault between turns is possible.",
        "hold": "Test pulses show a fault between turns that ohms do not see: it would burn out.",
    },
    "drying": {
        "watch": "It is still drying; it takes as long as it takes.",
        "note": "It has dried out.",
        "hold": "It will not dry out: there is dirt or a fault, not only water.",
    },
}


def sentence_of(finding: Finding) -> str:
    """Return the sentence alone; nothing where there is none."""
    if finding.subject.endswith(NO_EARTH):
        return "It is made to need no earth: nothing of it is earthed, and nothing need be."
    return SENTENCES.get(finding.code, {}).get(finding.verdict, "")


def plain_words(finding: Finding) -> str:
    """Return the sentence a customer understands, with figure and limit; nothing where there is none."""
    sentence = sentence_of(finding)
    if not sentence or finding.figure is None:
        return sentence
    unit = f" {finding.unit}" if finding.unit else ""
    limit = f", limit {finding.limit:g}{unit}" if finding.limit is not None else ""
    return f"{sentence} ({show_figure(finding.figure)}{unit}{limit})"


def for_the_customer(findings: Sequence[Finding]) -> list[str]:
    """Return the sentences of a job, in the order of its findings."""
    return [words for f in findings if (words := plain_words(f))]
