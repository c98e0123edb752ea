"""What a lead is called in words: by its colour and the mark on it, else by its tag and the mark it must bear."""

import re
from collections.abc import Mapping

from careful_coil.core.job import Job
from careful_coil.core.winding.arrangements import ARRANGEMENTS
from careful_coil.core.winding.markings import System, in_marking, mark_of

# names of the model that are no words of the trade, and T numbers: they are told apart within a text
_MODEL = re.compile(r"T\d+|[a-z]+-(?:\d+|tap)|neutral")
SYSTEMS: Mapping[str, System] = {"T": "T", "IEC": "IEC", "letters": "letters"}


def role_or_mark(slug: str, name: str) -> str:
    """Return a word of the trade for a lead as the model names it: its role, or a mark that is usual."""
    return in_marking(slug, name, "") if _MODEL.fullmatch(name) else name


def called(job: Job, names: Mapping[str, str], slug: str, marks: str) -> dict[str, str]:
    """Return the words for each lead, by its name in the model.

    `names` the model's name of each tag; `marks` the shop's marking. Printed: “yellow T4”, or the print alone
    where no colour is noted. Not printed: the tag, and the mark it must bear, in the marking that its other
    leads are printed in: “D (T4)”.
    """
    leads = {x.tag: x for x in job.leads}
    like = next((x.marking for x in job.leads if x.marking.strip()), "")
    found = {}
    for tag, name in names.items():
        lead = leads.get(tag)
        printed = lead.marking.strip() if lead is not None else ""
        if printed and lead is not None:
            found[name] = f"{lead.colour} {printed}".strip()
            continue
        own = None if like else mark_of(slug, name, SYSTEMS[marks])
        mark = own or (in_marking(slug, name, like) if like else role_or_mark(slug, name))
        found[name] = f"{tag} ({mark})"
    return found


def in_words(text: str, words: Mapping[str, str]) -> str:
    """Return a text with the model's names of leads said in words; what is said already stays."""
    own = sorted((n for n in words if _MODEL.fullmatch(n)), key=len, reverse=True)
    if not own or not text:
        return text
    pattern = rf"(?<![\w.(-])(?:{'|'.join(map(re.escape, own))})(?![\w-]|\.\w)"

    def said(found: re.Match[str]) -> str:
        name = found[0]
        before = words[name].removesuffix(name)
        done = before != words[name] and bool(before) and text[: found.start()].endswith(before)
        return name if done else words[name]

    return re.sub(pattern, said, text)


def in_marks(text: str, slug: str, words: Mapping[str, str] | None = None) -> str:
    """Return a text with the model's names of an arrangement's leads said in words, else by their usual marks.

    A coil, two names with a hyphen between, is said as its two ends.
    """
    leads = ARRANGEMENTS[slug].network.leads if slug in ARRANGEMENTS else ()
    for variant in ARRANGEMENTS[slug].variants.values() if leads else ():
        leads = (*leads, *(n for n in variant.leads if n not in leads))
    told = {n: (words or {}).get(n, role_or_mark(slug, n)) for n in leads}
    names = sorted((n for n in leads if _MODEL.fullmatch(n)), key=len, reverse=True)
    if not names:
        return text
    one = "|".join(map(re.escape, names))
    coil = re.compile(rf"(?<![\w.-])({one})-({one})(?![\w-])")
    apart = coil.sub(lambda m: f"{told[m[1]]} to {told[m[2]]}", text)
    return in_words(apart, {n: told[n] for n in names})
