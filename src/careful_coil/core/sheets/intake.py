"""Intake: ticket, plate, looks, condition, symptoms, what repair costs, the replacement card."""

from careful_coil.core.choices import YES_NO, table
from careful_coil.core.days import WANTED as DAY
from careful_coil.core.sheets.field import Field, Sheet
from careful_coil.core.units import Quantity

LONG = 4000  # characters of what the counter writes down


def _told(name: str, label: str, hint: str = "", asked: str = "") -> Field:
    return Field(name, label, hint, asked=asked, longest=LONG, ask="word")


TICKET = Sheet(
    name="ticket",
    title="Counter",
    station="intake",
    part="ticket",
    fields=(
        _told("name", "Motor, as the shop will call it", "Bakery, dough mixer", "motor"),
        _told("customer", "Customer"),
        Field("phone", "Telephone", "0555 123", special="phone", longest=LONG, ask="word"),
        Field(
            "complaint",
            "What is wrong, in the customer's words",
            "hums, will not start",
            special="complaint",
            asked="complaint",
            longest=LONG,
            ask="word",
        ),
        _told("place", "Where it stands in the shop", "bench 1", "place"),
        Field(
            "go-ahead",
            "Customer's go-ahead for costly work",
            "yes",
            choices=YES_NO,
            asked="the customer's go-ahead",
            ask="word",
            part="customer",
        ),
        Field(
            "promised",
            "Promised for, its day",
            "2026-03-10",
            special="day",
            wanted=DAY,
            asked="the day it is promised for",
            ask="word",
        ),
        Field(
            "waits",
            "Waits for, and until when; none when it has come",
            "capacitor 2026-03-06; customer 2026-03-08",
            special="waits",
            asked="what it waits for, and until when",
            ask="word",
        ),
    ),
)


def _plate(name: str, label: str, hint: str = "") -> Field:
    return Field(name, label, hint, special="plate", ask="plate")


PLATE = Sheet(
    name="plate",
    title="Plate",
    station="intake",
    part="plate",
    fields=(
        _plate("phases", "Phases", "3"),
        _plate("volt", "Volts", "230/460"),
        _plate("hertz", "Hertz", "50"),
        _plate("amp", "Amps", "5.8/2.9"),
        _plate("power", "Power", "1 hp"),
        _plate("rpm", "Rev/min", "1420"),
        _plate("serial", "Serial"),
        _plate("capacitor", "Capacitor", "25 µF 450 V"),
        _plate("poles", "Poles", "4"),
        _plate("power-factor", "Power factor", "0.81"),
        _plate("service-factor", "Service factor", "1.15"),
        _plate("code", "Code letter", "J"),
        _plate("insulation-class", "Insulation class", "F"),
        _plate("protection", "Earthed: class I or II", "I"),
        _plate("ambient", "Ambient", "40 °C"),
        _plate("duty", "Duty", "S1"),
        _plate("rotation", "Rotation, and its view", "CWLE"),
        _plate("frame", "Frame", "184T"),
        _plate("enclosure", "Enclosure", "IP55"),
        _plate("kind", "Kind, as printed", "CAP START CAP RUN"),
        _plate("connection", "Connection, as printed", "D/Y"),
        _plate("protector", "Protector, as printed", "MANUAL RESET"),
        _plate("power-side", "Power is: in or out", "out"),
        _plate("ratings", "Further ratings", "460 V 2.9 A 60 Hz"),
    ),
)


def _money(name: str, label: str, hint: str = "", quantity: Quantity = Quantity.NUMBER) -> Field:
    return Field(
        name,
        label,
        hint,
        quantity=quantity,
        most=1e9,
        wanted="a figure, for example 120 or 45.50",
        ask="word",
    )


ESTIMATE = Sheet(
    name="estimate",
    title="Worth it?",
    station="intake",
    prefix="worth-",
    part="estimate",
    fields=(
        _money("parts", "Parts", "45"),
        _money("bearings", "Bearings", "24"),
        _money("labour", "Labour", "120"),
        _money("rewind_kg", "Wire for a rewind, kg", "3.5", Quantity.MASS),
        _money("rewind_price", "Rewind, for a kg", "60"),
        _money("drive", "A drive, if it needs one"),
        _money("replacement", "A new one", "310"),
        _money("lead_days", "Days until it comes", "14"),
        Field("special", "Cannot be had new", "no", choices=YES_NO),
        Field("needed", "Is one needed at all", "yes", choices=YES_NO),
        Field(
            "payer",
            "Who pays",
            "customer",
            choices=table(
                """
    customer = owner, he, they
    shop = warranty, guarantee, us, we
    insurer = insurance, claim
    """
            ),
        ),
        _money("scrap_kg", "Copper in it, kg", "3.5", Quantity.MASS),
        _money("scrap_price", "Copper, for a kg", "6"),
        _money("aluminium_kg", "Aluminium in it, kg", "1.2", Quantity.MASS),
        _money("aluminium_price", "Aluminium, for a kg", "1.5"),
    ),
)
LOOKS = Sheet(name="look", title="What kind it is", station="intake", free=True, part="kind")
CARD = Sheet(
    name="card",
    title="Replacement card",
    station="intake",
    free=True,
    of=("wanted", "offered"),
    part="replacement",
)
VOLTAGE_TAGS = Sheet(
    name="voltage-tag", title="Voltage tags", station="intake", free=True, part="tags"
)
CONDITION = Sheet(
    name="condition",
    title="Look, smell, feel",
    station="intake",
    free=True,
    part="condition",
    bad=True,
)
SYMPTOMS = Sheet(
    name="symptom", title="How it failed", station="intake", free=True, part="complaint"
)
SHEETS = (TICKET, PLATE, ESTIMATE, LOOKS, CARD, VOLTAGE_TAGS, CONDITION, SYMPTOMS)
