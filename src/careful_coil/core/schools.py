"""Where practitioners differ the shop chooses once. What can hurt has no school: it is a hold."""

from collections.abc import Mapping
from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class School:
    """A question with its choices, each with the reason its people give; `usual` when none is made.

    `station` where it speaks.
    """

    name: str
    question: str
    choices: Mapping[str, str]
    usual: str
    station: str


def _school(name: str, station: str, question: str, **choices: str) -> School:
    told = {c.replace("_", " "): why for c, why in choices.items()}
    return School(
        name=name, question=question, choices=told, usual=next(iter(told)), station=station
    )


SCHOOLS: dict[str, School] = {
    s.name: s
    for s in (
        _school(
            "visits",
            "intake",
            "Does the shop also work where motors stand?",
            yes="asked of each motor: a visit has its own list and its own order",
            no="never asked; Release can still say so",
        ),
        _school(
            "windings-apart",
            "insulation",
            "Insulation between windings: when?",
            reason="where size, a rewind, damp or harm gives one",
            always="each winding by itself on every motor",
        ),
        _school(
            "tape",
            "connect",
            "Tape over connectors?",
            yes="keeps damp and dust out",
            no="the connector's own shell insulates; tape hides a loose one",
        ),
        _school(
            "contacts",
            "start-gear",
            "Pitted contacts: dress or replace?",
            dress="cheap, holds where the pits are shallow",
            replace="dressed contacts pit again sooner",
        ),
        _school(
            "start-switch",
            "start-gear",
            "A worn mechanical switch: the same kind or an electronic one?",
            keep="the maker's speed and ratings stand",
            retrofit="no contacts to burn, off the shelf",
        ),
        _school(
            "reverse",
            "connect",
            "Reverse by the start or the main winding?",
            start="the leads one wants are mostly out",
            main="where the start circuit has the switch and can in it",
        ),
        _school(
            "view",
            "connect",
            "Rotation is viewed from which end?",
            drive_end="IEC 60034-8",
            opposite="the lead end, as many plates say it",
        ),
        _school(
            "marks",
            "leads",
            "Leads are marked how?",
            T="numbers count round the winding",
            IEC="letters by phase, numbers by end",
            letters="what older local diagrams show",
        ),
        _school(
            "bunching",
            "leads",
            "Several leads clipped together as one end?",
            yes="one reading rules out many pairs",
            no="one pair at a time, nothing to untangle",
        ),
        _school(
            "supply-colours",
            "connect",
            "Supply conductors are coloured how?",
            by_the_supply="60 Hz by its volts, others by IEC 60445",
            brown_black_grey="IEC 60445, one set for all volts",
            by_voltage="black red blue up to 240 V, brown orange yellow above",
            red_yellow_blue="older installations",
        ),
        _school(
            "terms",
            "release",
            "British or American terms and spelling?",
            as_written="each thing by the name it has here: earth, end bell, cord, wye",
            british="earth, end shield, flex, star, bush, phase sequence, colour",
            american="ground, end bell, cord, wye, sleeve bearing, phase rotation, color",
        ),
        _school(
            "language",
            "release",
            "In which language does the window speak?",
            as_the_desktop="what the desktop speaks, where it is one of these",
            english="everything is said in it, papers too",
            german="begun: stations, verdicts, cautions; the rest is English",
            spanish="begun: stations, verdicts, cautions; the rest is English",
            french="begun: stations, verdicts, cautions; the rest is English",
        ),
        _school(
            "star",
            "connect",
            "Wye or star?",
            wye="short, unlike delta to the ear",
            star="the word of the standards in use",
        ),
        _school(
            "reference",
            "insulation",
            "Ohms are brought to which temperature?",
            **{
                "25_°C": "common for rewinds",
                "20_°C": "tables of wire stand there",
                "40_°C": "the same as insulation",
            },
        ),
        _school(
            "copper-constant",
            "insulation",
            "Copper is brought to a temperature by which constant?",
            **{
                "234.5": "IEEE 112, and most tables",
                "235": "IEC 60034-1",
            },
        ),
        _school(
            "start-window",
            "start-gear",
            "A start capacitor may be off by how much?",
            as_marked="the range on the can",
            minus_10_plus_20="usual where the can gives one figure",
        ),
        _school(
            "joint",
            "connect",
            "Joints are made how?",
            crimp="the same every time with the right tool",
            wire_connector="can be opened again",
            solder="lowest ohms; needs a mechanical hold first",
        ),
        _school(
            "finish",
            "connect",
            "Finish each joint, or join all and then insulate?",
            each="none is forgotten bare",
            all="all can be checked before they are covered",
        ),
        _school(
            "order",
            "connect",
            "Which joints come first?",
            inner="star and series joints, then the lines",
            lines="lines first, what is left belongs together",
        ),
        _school(
            "cable",
            "connect",
            "What must the cable to the motor carry?",
            setting="what the overload is set to: the plate's amps (IEC 60364-4-43)",
            more="125 % of the plate's amps (NFPA 70, 430.22)",
        ),
        _school(
            "cord",
            "mechanics",
            "A bad cord: new or spliced?",
            new="no joint that can be pulled",
            splice="allowed inside a box with relief",
        ),
        _school(
            "bearing",
            "mechanics",
            "A doubtful bearing?",
            renew="cheaper than a second visit",
            oil_and_watch="sleeve bearings come back with oil",
            replace_motor="where bearings cost more than the motor",
        ),
        _school(
            "frame-test",
            "insulation",
            "The first test to frame?",
            tester_always="an ohmmeter's open proves nothing",
            ohmmeter_first="finds a dead short without stress",
        ),
        _school(
            "bleed",
            "intake",
            "A bleed resistor on a start capacitor?",
            never_relied_on="discharge by hand whatever is fitted",
            always="contacts weld on a charged capacitor; discharge by hand all the same",
        ),
        _school(
            "colours",
            "leads",
            "Lead colours?",
            leaning="worth a little, never proof",
            ignored="makers differ, repairs more",
        ),
        _school(
            "drop-out",
            "start-gear",
            "Drop-out of the start switch is judged how?",
            speed="about three quarters of full speed",
            time="heard, in seconds from switching on",
        ),
        _school(
            "unlike-switch",
            "start-gear",
            "The right switch cannot be had today?",
            wait="speeds and ratings belong to the motor",
            fit_unlike="the customer runs again",
        ),
        _school(
            "appliances",
            "intake",
            "Drive-fed appliance motors?",
            repair="windings and sensors can be tested",
            scrap="the drive is the usual fault and the price of both too high",
        ),
        _school(
            "appliance-tests",
            "insulation",
            "Appliance test of a motor on a cord?",
            no="whoever answers for the machine makes it, whole, where it stands",
            yes="earth, insulation and leakage are measured before it leaves",
        ),
        _school(
            "universal",
            "connect",
            "A universal motor is reversed by?",
            brushes="two leads at the holders",
            field="where the brushes are set off neutral",
        ),
        _school(
            "part-winding",
            "connect",
            "The second half of a part winding comes in after?",
            **{"two_seconds": "less heating of the first half", "four_seconds": "heavy loads"},
        ),
    )
}
