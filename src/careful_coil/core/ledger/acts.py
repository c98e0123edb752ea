"""What a step's own key logs, by its act: a cut, a joint, covers, the proof of no volts, the end of a sheet."""

from collections.abc import Callable, Mapping

from careful_coil.core.identify.rules import right_marks
from careful_coil.core.job import AnyBody
from careful_coil.core.job.at_connect import Insulated, Parted, StepTicked
from careful_coil.core.job.at_insulation import Covers, Work
from careful_coil.core.job.at_intake import Leads
from careful_coil.core.job.at_release import OnSite
from careful_coil.core.job.at_trial import TrialEnded
from careful_coil.core.job.entries import JointMade, ProvedDead
from careful_coil.core.ledger.judgement import Judgement
from careful_coil.core.ledger.step import NextStep

Act = Callable[[Judgement, NextStep], AnyBody]


def _names(judged: Judgement, step: NextStep) -> tuple[str, ...]:
    return judged.facts.connecting.by_tag(step.ends)


def _retagged(judged: Judgement, step: NextStep) -> Leads:
    """Return the leads with the marks that the readings gave them: the old print is taken off or covered."""
    right = right_marks(judged.job, judged.facts.naming)
    return Leads(
        leads=tuple(
            x.model_copy(update={"marking": right.get(x.tag, x.marking)}) for x in judged.job.leads
        )
    )


ACTS: Mapping[str, Act] = {
    "joint": lambda judged, step: JointMade(joint=_names(judged, step)),
    "part": lambda judged, step: Parted(leads=_names(judged, step)),
    "insulate": lambda judged, step: Insulated(lead=_names(judged, step)[0]),
    "tick": lambda judged, step: StepTicked(step=_names(judged, step)[0]),
    "covers": lambda _, step: Covers(on=step.code != "open-up"),
    "rewound": lambda _, __: Work(what="rewound"),
    "dried": lambda _, __: Work(what="dried"),
    "cleaned": lambda _, __: Work(what="cleaned"),
    "retag": _retagged,
    "bring-in": lambda _, __: OnSite(on=False),
    "dead": lambda _, __: ProvedDead(volt=0.0),
    "end": lambda _, __: TrialEnded(),
}
