"""What the hands and eyes found becomes findings, holds until it is made good."""

from collections.abc import Iterator

from careful_coil.core.condition.burn import BURN, BURNS
from careful_coil.core.condition.checklist import ITEMS, MADE_GOOD, Item, Weight, items_for
from careful_coil.core.job import Finding, Job
from careful_coil.core.job.noted import Noted
from careful_coil.core.kind import Weighed
from careful_coil.core.settings import Settings


def seen_findings(job: Job, kinds: Weighed, settings: Settings) -> list[Finding]:
    """Return what the condition as found means; a hold keeps the gate until it is made good."""
    found = [*_arrived(job), *_tags(job)]
    for name, body in job.seen.condition.items():
        if name == BURN:
            found += list(_burn(job, body))
        elif name in ITEMS:
            found += list(_item(job, ITEMS[name], body, settings))
    left = unseen_items(job, kinds)
    if job.seen.condition and left:
        names = ", ".join(i.name for i in left[:4]) + (" …" if len(left) > 4 else "")
        found.append(
            _note("condition-open", "Not looked at yet", f"{names}. One key: the rest is fine.")
        )
    return found


def unseen_items(job: Job, kinds: Weighed) -> tuple[Item, ...]:
    """Return the items nobody has said anything of."""
    known = {*job.seen.condition, *job.seen.fine}
    return tuple(i for i in items_for(kinds) if i.name not in known)


def _item(job: Job, item: Item, body: Noted, settings: Settings) -> Iterator[Finding]:
    subject = f"{item.question}: {body.text}"
    if body.text == MADE_GOOD:
        yield _good(item.name, f"{item.question}: made good", body.words or "Seen again, and well.")
        return
    wrong = item.wrong.get(body.text)
    if wrong is None:
        words = f" {body.words}" if body.words else ""
        yield _note(_code(item.name), subject, f"In the bench's own words.{words}")
        return
    done = next((w for w in job.work if w in item.work), None)
    if done:
        yield _good(item.name, f"{item.question}: {body.text} when it came", f"Since then: {done}.")
        return
    since = _mended_by_hands(job, item.name)
    if since:
        yield _good(item.name, f"{item.question}: {body.text} when it came", since)
        return
    weight: Weight = wrong.weight
    if item.school and settings.school(item.school) == "always":
        weight = "hold"
    yield Finding(
        code=_code(item.name),
        verdict=weight,
        subject=subject,
        why=f"{wrong.why}{f' {body.words}' if body.words else ''}",
        station="intake",
        gate=weight == "hold",
    )


DEVICE_ITEMS = ("contacts", "weights")  # of the switch, made good with it
GOOD_LOOKS = ("free", "even", "pitted")
BEARING_ITEMS = {"drive-end bearing": "drive", "other bearing": "other"}


def _mended_by_hands(job: Job, item: str) -> str:
    """Return what Mechanics says has been made good of it since, nothing where it has not."""
    hands = job.hands
    if item == "by-hand" and hands.felt.get("feel") == "free":
        return "Since then: turns freely by hand."
    if hands.bearings.get(BEARING_ITEMS.get(item, ""), {}).get("done") == "renewed":
        return "Since then: renewed."
    said = job.deeds.stamps.get(f"condition:{item}", -1)
    if item in DEVICE_ITEMS and any(d.place > said for d in job.deeds.counted(("device",))):
        return _looked_again(job)
    if item == "capacitor" and any(d.place > said for d in job.deeds.counted(("capacitor",))):
        return "Since then: renewed."
    if item == "terminals" and any(d.place > said for d in job.deeds.counted(("joint",))):
        return "Since then: reconnected."
    every = [told.get("done") for told in hands.brushes.values()]
    if item == "brushes" and every and set(every) == {"renewed"}:
        return "Since then: renewed."
    return ""


def _looked_again(job: Job) -> str:
    """Return that a switch was looked at since it was dressed or renewed, and found well."""
    since = max(d.place for d in job.deeds.counted(("device",)))
    seen = [
        text
        for (name, field), text in job.gear.noted.items()
        if field in ("actuator", "plate")
        and job.deeds.stamps.get(f"device-noted:{name}:{field}", -1) > since
    ]
    return (
        "Since then: dressed or renewed, and looked at."
        if seen and set(seen) <= {*GOOD_LOOKS}
        else ""
    )


def _burn(job: Job, body: Noted) -> Iterator[Finding]:
    burn = BURNS.get(body.text)
    if burn is None:
        return
    yield Finding(
        code="burn-picture",
        verdict="watch",
        subject=f"Burn picture: {burn.title}",
        why=f"{burn.cause} Look at: {burn.look}",
        station="intake",
    )


def _arrived(job: Job) -> Iterator[Finding]:
    came = job.seen.arrived
    if came is None:
        return
    missing = f" Missing: {', '.join(came.missing)}." if came.missing else ""
    if "dismantled" in came.states:
        yield _watch(
            "dismantled",
            "Came dismantled",
            f"There is no hookup as found: the maker's diagram or a test decides.{missing}",
        )
    if "repaired-before" in came.states:
        yield _watch(
            "repaired-before",
            "Came after somebody's repair",
            "Marks, joints and parts may not be the maker's: measurements count, marks less."
            + ("" if "dismantled" in came.states else missing),
        )
    if not came.states and came.missing:
        yield _watch("missing", "Came with parts missing", missing.strip())


def _tags(job: Job) -> Iterator[Finding]:
    tags = job.seen.voltage_tags
    if len(set(tags.values())) > 1:
        told = "; ".join(f"{place}: {words}" for place, words in tags.items())
        yield _watch(
            "voltage-tags-differ", "Voltage tags do not agree", f"{told}. Measure the supply."
        )


def _code(item: str) -> str:
    return f"seen-{item.replace(' ', '-')}"


def _note(code: str, subject: str, why: str) -> Finding:
    return Finding(code=code, verdict="note", subject=subject, why=why, station="intake")


def _watch(code: str, subject: str, why: str) -> Finding:
    return Finding(code=code, verdict="watch", subject=subject, why=why, station="intake")


def _good(item: str, subject: str, why: str) -> Finding:
    return Finding(
        code=_code(item), verdict="good", subject=subject, why=why, station="intake", gate=True
    )
