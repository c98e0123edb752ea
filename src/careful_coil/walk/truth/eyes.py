"""What eyes and hands find on a motor: plate, prints, what there is, how it looks and feels."""

from collections.abc import Callable, Mapping, Sequence

from careful_coil.core.mechanics.bearing_table import SPELLINGS
from careful_coil.core.readings import LINES
from careful_coil.documents.motor import BearingReal, LeadReal
from careful_coil.walk.told import Told
from careful_coil.walk.truth.plated import printed
from careful_coil.walk.truth.short import bare, code_of, listed
from careful_coil.walk.truth.world import Ask, World

WHO = "AB"
COVERED = Told(lacks="the covers are on")
MECHANISM = {"stuck-open": "sticks", "stuck-closed": "sticks"}
CONTACTS = {"dirty": "burnt", "stuck-closed": "welded"}
BRUSHED = ("universal-4-lead", "universal-5-lead")
WET, CLEAN = "damp", "clean"
APART, NO_WICK = "0", "no wick"


def named(ask: Ask) -> tuple[str, str]:
    """Return the kind and the name of the part that is asked about."""
    kind, _, name = str(ask["part"]).partition(":")
    return kind, name


def plate(world: World, ask: Ask) -> Told:
    """Return a field of the plate as printed, ? where it cannot be read."""
    field = str(ask["id"])
    text = plate_text(world, field)
    return Told(text=bare(text) if field == "capacitor" else text)


def plate_text(world: World, field: str) -> str:
    """Return what the plate says in a field: ? where it cannot be read, none where it says nothing."""
    seen = world.motor.plate
    if field in seen.unreadable or not seen.text:
        return "?"
    return printed(seen.text, field) or "none"


def inventory(world: World, ask: Ask) -> Told:
    """Return what there is: leads (how many, or each with colour and print), bars, start gear."""
    kind, _ = named(ask)
    if kind == "leads":
        leads = world.motor.leads
        if ask["type"] == "text":
            if "prints" in ask["ends"] and (own := _marks_in_turn(leads)):
                return Told(text=own)
            return Told(text=_row(leads) or ";".join(_lead(x, k) for k, x in enumerate(leads)))
        return Told(number=float(len(leads)), text=str(len(leads)))
    if kind == "commutator":
        bars = len((world.motor.model_extra or {}).get("bar_ohm", ())) or 24
        return Told(number=float(bars), text=str(bars))
    if kind != "start-gear":
        return Told(lacks=f"nothing to list of {kind}")
    hidden = [d for d in world.motor.devices if d.inside and not world.covers_off]
    motor = world.motor
    shown = [d for d in motor.devices if d not in hidden]
    seen = listed(motor.capacitors, shown, plate_text(world, "capacitor"))
    if seen:
        return Told(text=";".join(seen))
    return COVERED if hidden else Told(text="none")


def _looks(lead: LeadReal) -> str:
    return str((lead.model_extra or {}).get("looks", ""))


def _marks_in_turn(leads: Sequence[LeadReal]) -> str:
    """Return prints that count up from T1, in the order the tags hang, as one row; empty where they are not so."""
    row = [x.mark for x in leads] == [f"T{k}" for k in range(1, len(leads) + 1)]
    turn = [x.tag for x in leads] == list(IN_TURN[: len(leads)])
    whole = row and turn and len(leads) >= ROW_FROM
    return f"T1-T{len(leads)}" if whole and not any(_looks(x) for x in leads) else ""


def _row(leads: Sequence[LeadReal]) -> str:
    """Return leads of one colour whose prints count up from T1 as one row, empty where they are not so."""
    marks = _marks_in_turn([x.model_copy(update={"looks": ""}) for x in leads])
    alike = {(x.colour, _looks(x)) for x in leads}
    colour, looks = next(iter(alike), ("", ""))
    return f"{colour} {marks} {looks}".strip() if marks and len(alike) == 1 else ""


ROW_FROM = 3
IN_TURN = "ABCDEFGHJKLMNPRS"  # tags as they are hung: one that hangs in turn need not be said


def _lead(lead: LeadReal, place: int) -> str:
    told = [w for w in (code_of(lead.colour), lead.mark, _looks(lead)) if w]
    in_turn = lead.tag == IN_TURN[place : place + 1]
    return " ".join(told if told and in_turn and len(told[0]) > 1 else [lead.tag, *told])


def _bearing(world: World, end: str) -> BearingReal:
    return world.motor.bearings.drive if end == "drive" else world.motor.bearings.other


def prints(world: World, ask: Ask) -> Told:
    """Return what is printed on a bearing, a capacitor, a lead, a switch."""
    kind, name = named(ask)
    if kind == "bearing":
        own = _bearing(world, name)
        other = str((own.model_extra or {}).get("seat", ""))  # what belongs there
        alike = str(ask["id"]).endswith("-fitted") and not other
        return Told(text="=" if alike else own.number)
    if kind == "capacitor":
        can = next((c for c in world.motor.capacitors if c.name == name), None)
        if can is None or not can.marked:
            return Told(lacks="it cannot be read")
        return Told(text="=" if list(ask["ends"]) == [can.marked] else can.marked)
    if kind == "lead":
        lead = next((x for x in world.motor.leads if x.tag == name), None)
        return (
            Told(text=lead.mark) if lead and lead.mark else Told(lacks="nothing is printed on it")
        )
    device = next((d for d in world.motor.devices if d.name == name), None)
    if device is None or not device.table:
        return Told(lacks=f"nothing is printed on {ask['part']}")
    words = [
        f"{p}: {' '.join('-'.join(pair) for pair in closed) or 'off'}"
        for p, closed in device.table.items()
    ]
    return Told(text="; ".join(words))


def size(world: World, ask: Ask) -> Told:
    """Return what callipers say of a bearing, a capacitor, a brush."""
    kind, name = named(ask)
    if kind == "bearing":
        own = _bearing(world, name)  # callipers go on shaft and housing: on what belongs there
        fits = str((own.model_extra or {}).get("seat", "")) or own.number
        found = SPELLINGS.get(fits.split("-")[0])
        if found is None:
            return Told(lacks="no callipers that fit")
        if list(ask["ends"]) == ["outside"]:
            return Told(text=f"{found.outside:g}")
        return Told(text=f"{found.bore:g} x {found.outside:g} x {found.width:g}")
    if kind == "capacitor":
        can = next((c for c in world.motor.capacitors if c.name == name), None)
        if can is not None and can.size_mm:
            return Told(text=" x ".join(f"{v:g}" for v in can.size_mm))
    if kind == "brush" and world.motor.arrangement in BRUSHED:
        return Told(number=14.0, unit="mm", text="14 mm")
    return Told(lacks=f"nothing to measure on {ask['part']}")


def feel(world: World, ask: Ask) -> Told:
    """Return how the shaft turns, or how a bearing runs."""
    kind, name = named(ask)
    if kind == "shaft":
        return Told(text=world.motor.shaft.feel)
    if kind == "bearing":
        return Told(text=_bearing(world, name).state)
    return Told(lacks=f"nothing to feel on {ask['part']}")


def _device(world: World, ask: Ask) -> str:
    device = next((d for d in world.motor.devices if d.name == named(ask)[1]), None)
    if device is None or (device.inside and not world.covers_off):
        return ""
    if "across" in ask["ends"]:
        return "bridged" if device.state == "bridged" else "nothing"
    if "leads of its own" in ask["ends"]:
        return "yes" if device.device().watches else "no"
    table = MECHANISM if "mechanism" in ask["ends"] else CONTACTS
    return table.get(device.state, "free" if table is MECHANISM else "even")


def _can(world: World, ask: Ask) -> str:
    can = next((c for c in world.motor.capacitors if c.name == named(ask)[1]), None)
    return can.looks if can is not None else ""


BUSH = {"ports": "1 of 1", "oil": "32"}


def _bush(world: World, ask: Ask) -> str:
    """Return what is seen of a sleeve bearing: its wick, its oil ports, the oil that was put in."""
    if ask["field"] == "wick":
        told = _bearing(world, named(ask)[1]).model_extra or {}
        return str(told.get("wick", NO_WICK))
    return BUSH.get(str(ask["field"]), "")


def _more(world: World, name: str) -> object:
    return (world.motor.model_extra or {}).get(name)


def _joints(world: World, ask: Ask) -> str:
    told = (world.motor.model_extra or {}).get("loose", ())
    loose, tags = {str(n) for n in told}, set(world.lead_of)
    joints = []
    for joint in (j for j in world.joints if len(j) > 1):
        marks = {x.mark for x in world.motor.leads if x.tag in joint} | joint
        marks |= {world.node(n) for n in joint}
        word = " loose" if loose & marks else ""
        own = sorted(joint, reverse=True)
        glued = all(n in LINES or (n in tags and len(n) == 1) for n in own)
        joints.append(("" if glued else " ").join(own) + word)
    as_it_is = {frozenset(j) for j in world.joints if len(j) > 1}
    standard = [{frozenset(j.split()) for j in told.split("; ")} for told in ask["choices"]]
    if as_it_is in standard and not any("loose" in j for j in joints):
        return str(standard.index(as_it_is) + 1)
    return "; ".join(joints) or APART


def _built(world: World, ask: Ask) -> str:
    """Return what eyes see of how it is built: a shell, shading rings, brushes."""
    motor, sign = world.motor, str(ask["ends"][0])
    built = str((motor.model_extra or {}).get("built", ""))
    shown = {
        "sealed": "compressor" in f"{built} {motor.name}".lower(),
        "shading-rings": any(c.like == "rings" for c in world.inner.coils),
        "brushes": motor.arrangement in BRUSHED or "universal" in built,
    }
    return ("yes" if shown[sign] else "no") if sign in shown else ""


# what is seen of a part, empty where nothing can be
SEEN: Mapping[str, Callable[[World, Ask], str]] = {
    "device": _device,
    "bearing": _bush,
    "capacitor": _can,
    "hookup": _joints,
    "lead": lambda world, ask: world.lead_of.get(named(ask)[1], "").rsplit("-", 1)[0],
    "motor": _built,
    "fan": lambda world, _: world.motor.fan,
    "temporary": lambda world, _: str(_more(world, "temporary") or "nothing"),
    "seals": lambda world, _: world.motor.seals,
    "winding": lambda world, _: WET if world.motor.insulation.wet else CLEAN,
    "brushes": lambda world, _: "yes" if world.motor.arrangement in BRUSHED else "no",
    "class": lambda world, _: world.motor.class_,
    "place": lambda world, _: world.motor.place,
}


def look(world: World, ask: Ask) -> Told:
    """Return how a part looks; what is inside only with the covers off."""
    kind, name = named(ask)
    inside = any(d.name == name and d.inside for d in world.motor.devices)
    if kind == "device" and inside and not world.covers_off:
        return COVERED
    found = SEEN[kind](world, ask) if kind in SEEN else ""
    if kind == "capacitor" and "serves" in ask["ends"]:
        found = next((c.serves for c in world.motor.capacitors if c.name == name), "")
    if ask["type"] == "choice" and found not in ask["choices"]:
        found = ""
    takes = bool(ask["reader"]) or ask["type"] == "choice"
    return Told(text=found) if found and takes else Told(lacks="nothing that the question names")


def direction(world: World, ask: Ask) -> Told:
    """Return which way is wanted, which way it last turned, or the supply's phase order."""
    wanted = world.motor.wanted
    if str(ask["id"]).startswith("wish-"):
        own = wanted.seen_from if str(ask["id"]).endswith("from") else wanted.direction
        return Told(text=own) if own else Told(lacks="nobody said which way")
    if ask["part"] == "supply":
        return Told(text="123")
    if not world.turned:
        return Told(lacks="it has not turned yet")
    return Told(text=world.turned if ask["reader"] == "site" else f"{world.turned} drive-end")


def tick(world: World, ask: Ask) -> Told:
    """Do what is ticked; a run with the covers off takes them off."""
    if ask["reader"] == "begin":
        world.covers_off = "covers-off" in str(ask["id"])
        for line, tag in ask["lines"]:
            world.clip(str(line), str(tag))
    return Told(text="240 s" if str(ask["id"]).startswith("site-drained") else "all")


def word(world: World, ask: Ask) -> Told:
    """Return a word: the motor's name, the complaint, initials, what was done outside."""
    if str(ask["part"]).startswith("lead:"):  # by its print, where it goes, what it does
        return look(world, ask)
    if ask["part"] == "ticket":
        return Told(text=world.motor.name)
    if ask["part"] == "complaint":
        own, usual = world.motor.customer or "nothing", list(ask["choices"])
        said = own.split(", ")
        numbered = all(w in usual for w in said)
        return Told(text=" ".join(str(usual.index(w)) for w in said) if numbered else own)
    if ask["part"] == "release":
        return Told(text=WHO)
    if ask["part"] == "customer":
        declined = (world.motor.model_extra or {}).get("declined", False)
        if ask["type"] == "choice":
            return Told(text="no" if declined else "yes")
        return Told(text="unrepaired costs more than a new one")
    if ask["type"] == "choice":
        return Told(lacks="nobody here knows: it is the customer's to say")
    if ask["part"] == "winding":
        return Told(text="outside; core and turns tested, baked")
    return Told(text="done and looked at, in order")
