"""Which Next asks what: the first pattern that its code fits. Data, tried in order."""

import re
from collections.abc import Callable
from typing import TYPE_CHECKING, cast

from careful_coil.core.ledger.asks import (
    connect,
    gear,
    intake_leads,
    mechanics,
    release,
    trial,
    wall,
)
from careful_coil.core.ledger.asks.probed import probed
from careful_coil.core.ledger.asks.question import Question
from careful_coil.core.ledger.step import NextStep
from careful_coil.core.probes import PROBES

if TYPE_CHECKING:
    from careful_coil.core.ledger.judgement import Judgement

NOTHING = cast("re.Match[str]", re.match("", ""))
Make = Callable[["Judgement", NextStep, re.Match[str]], Question]
ASKS: tuple[tuple[str, Make], ...] = (
    ("name", intake_leads.name),
    ("complaint", intake_leads.complaint),
    ("work-place", intake_leads.work_place),
    (r"plate-(?P<field>phases|volt|hertz|amp|capacitor)", intake_leads.plate),
    ("tag", intake_leads.count),
    ("found-hookup", intake_leads.found),
    (r"retag-.*", intake_leads.retag),
    (r"beside-.*", intake_leads.beside),
    ("protection", intake_leads.protection),
    ("test-leads", intake_leads.clipped),
    (r"sign-(?P<name>.*)", intake_leads.sign),
    (r"(?:site-)?dead|dead-again", intake_leads.dead),
    (r"(?:resistance|frame|switch|shaft|spin|kick|series|run)-.*|run", probed),
    ("discharge", wall.discharge),
    (r"ready-.*", wall.ready),
    ("dry", wall.dry),
    ("appliance", wall.appliance),
    ("between", wall.between),
    ("covers|open-up|site-lid", wall.covers),
    ("bring-in", release.bring_in),
    ("supply-line", connect.supply_line),
    ("supply", connect.supply),
    (r"wish-(?P<field>.*)", connect.wish),
    (r"step-ohm|leftover|low-run-wrong", connect.look),
    (r"(?P<do>cut|joint|insulate)-.*", connect.dead_work),
    (r"(?P<do>fit-device|remove-device)-(?P<name>.*)", connect.device),
    ("before-power", connect.checks),
    ("direction", connect.direction),
    ("voltage-tags", connect.tags),
    ("installer", connect.installer),
    ("trial-ready", trial.ready),
    (r"trial-begin-.*", trial.begin),
    ("trial-end", trial.end),
    ("start-gear", gear.inventory),
    ("cause-first", gear.first),
    (r"cause-(?P<name>.*)", gear.test),
    ("cause", gear.cause),
    (r"(?P<do>drain|measure)-(?P<name>.*)", gear.capacitor),
    (r"marking-(?P<name>.*)", gear.marking),
    (r"serves-(?P<name>.*)", gear.serves),
    (r"shelf-(?P<name>.*)", gear.shelf),
    (r"read-(?P<name>.*)", gear.ohm),
    (r"look-(?P<name>.*)", gear.look),
    (r"renew-(?P<name>.*)", gear.renew),
    (r"work-(?P<name>.*)", gear.work),
    ("feel", mechanics.feel),
    (r"bearing-(?P<end>drive|other)", mechanics.bearing),
    ("fan", mechanics.fan),
    ("brushes", mechanics.brushes),
    ("bars", mechanics.count),
    ("bars-shaft", mechanics.to_shaft),
    ("mend-earth", wall.earth),
    (r"mend-lead-(?P<tag>.*)", mechanics.mend_lead),
    (r"mend-.*", mechanics.mend),
    ("left-on", mechanics.left_on),
    (r"temporary-(?P<name>.*)", mechanics.temporary),
    (r"back-(?P<name>.*)", mechanics.back),
    (r"site-.*", release.site),
    (r"open-(?P<code>.*)", release.still_open),
    ("go-ahead", intake_leads.go_ahead),
    ("rewind", release.rewind),
    ("wound-by", release.wound_by),
    ("let-go", release.let_go),
    ("sign", release.sign),
)


def asks_of(judged: "Judgement", step: NextStep) -> tuple[Question, ...]:
    """Return what a step asks, the first thing first; none for a code that is not in the table."""
    if step.act in PROBES:
        return (probed(judged, step, NOTHING),)
    for pattern, make in ASKS:
        found = re.fullmatch(pattern, step.code, re.DOTALL)
        if found is not None:
            return (make(judged, step, found),)
    return ()
