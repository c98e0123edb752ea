"""A nameplate typed or pasted in any order: which figure belongs to which word.

Words and figures are read from left to right; a unit or label takes the figure before it that is
not taken yet, else the figure after it. What belongs to nothing is handed back.
"""

import re
from dataclasses import dataclass

from careful_coil.core.job.plate_phrases import phrases_of

LEAST_VOLT, MOST_VOLT = 24, 15000  # a bare figure that can be volts
_FIGURE = r"\d+(?:[.,]\d+)?"
_RANGE = rf"{_FIGURE}(?:\s*[-–]\s*{_FIGURE})?"
_TOKEN = re.compile(
    r"(?P<word>(?:min|MIN)(?:-1|⁻¹)|[1r]/min|IP\s?\d\d|\bS\d{1,2}\b|\b\d{2,3}(?:T[CS]?|C|J[MP]?|U|Z|S|L|M|H|Y)\b)"
    rf"|(?P<mixed>\d+\s+\d+/\d+(?=\s*(?:hp|HP|Hp|h\.p\.)))"
    rf"|(?P<list>{_RANGE}(?:\s*/\s*{_RANGE})*)(?P<tail>~)?"
    r"|(?P<other>[^\s\d,;|]+(?:/min)?)"
)
_UNITS: dict[str, tuple[str, str]] = {}
for _field, _suffix, _words in (
    ("volt", "", "V VOLT VOLTS VAC VDB V~ VOLTAGE VOLTIOS"),
    ("amp", "", "A AMP AMPS AMPERE AMPERES FLA F.L.A. I"),
    ("hertz", "", "HZ CY CYC CYCLE CYCLES C/S PER"),
    ("rpm", "", "RPM R/MIN MIN-1 1/MIN TR/MIN U/MIN UPM R.P.M. REV/MIN MIN⁻¹ /MIN"),
    ("power", " hp", "HP H.P. HORSEPOWER"),
    ("power", " kW", "KW"),
    ("power", " W", "W WATT WATTS"),
    ("power", " PS", "PS"),
    ("power", " CV", "CV"),
    ("phases", "", "PH PHASE PHASES Ø PHS PH."),
    ("poles", "", "POLE POLES P"),
    ("service-factor", "", "SF S.F. SERVICE-FACTOR"),
    ("ambient", "", "AMB AMBIENT"),
    ("power-factor", "", "COS COSφ COSPHI COSΦ PF P.F."),
    ("capacitor", " µF", "MFD µF UF MF MICROFARAD"),
):
    for _word in _words.split():
        _UNITS[_word] = (_field, _suffix)
SERVICE_AMPS = "SFA"  # amps at the service factor: handed back with their figure
_TEXTS = {
    **dict.fromkeys(("FR", "FRAME", "FR."), "frame"),
    **dict.fromkeys(("SER", "SERIAL", "S/N", "SN", "NR", "NO", "NO."), "serial"),
    **dict.fromkeys(("CODE", "KVA-CODE"), "code"),
    **dict.fromkeys(
        ("INS", "INSUL", "CL", "CLASS", "CL.", "ISO", "ISOL", "INS.", "THCL"), "insulation-class"
    ),
    **dict.fromkeys(("DUTY", "RATING", "TIME"), "duty"),
    **dict.fromkeys(("ROT", "ROTATION"), "rotation"),
    "SFA": SERVICE_AMPS,
}
_ALONE = {
    **{"CONT": ("duty", "continuous"), "CONTINUOUS": ("duty", "continuous")},
    **{f"S{k}": ("duty", f"S{k}") for k in range(1, 11)},
    **dict.fromkeys(("CW", "CCW", "CWLE", "CCWLE", "CWSE", "CCWSE", "CWDE", "CCWDE"), None),
}
_PAIRED = re.compile(
    r"\b(service factor|kva code|ins(?:ul)?\.?\s*cl(?:ass)?\.?|th\.?\s*cl\.?|cos\s*(?:φ|phi|Φ))",
    re.I,
)
_AS_ONE = {"service factor": "SF", "kva code": "CODE"}


@dataclass(frozen=True, slots=True)
class Pasted:
    """Fields by name as they would be typed, and the pieces that belong to none."""

    fields: dict[str, str]
    left: tuple[str, ...]


def read_pasted(text: str) -> Pasted:
    """Return the fields of a nameplate's text, whatever their order."""
    told, rest = phrases_of(text)
    found = _Reader(_joined(rest)).read()
    return Pasted({**found.fields, **told}, found.left)


def _joined(text: str) -> str:
    """Make labels of two words one, and signs that stand for words words."""
    folded = (
        text.replace("\u2212", "-")
        .replace("μ", "µ")
        .replace("Ø", " PH ")
        .replace("=", " ")
        .replace(":", " ")
    )
    folded = re.sub(r"(\d)\s*°\s*C\b", r"\1 °C", folded)
    folded = re.sub(r"\b(AMB\w*)\s+(\d+)\s*C\b", r"\1 \2 °C", folded, flags=re.I)
    folded = re.sub(r"(\d+)\s*C(?=\s+AMB)", r"\1 °C", folded, flags=re.I)
    folded = re.sub(r"\b(?:cl|Cl|CL)\.\s*([A-HN])\b", r"INS \1", folded)
    folded = re.sub(
        r"\b(?:Isol|Iso|Is|Ins|Th)\.\s*(?:Cl\.)?\s*([A-HN])\b", r"INS \1", folded, flags=re.I
    )
    folded = re.sub(r"(\d)\s*V\s*~", r"\1 V~", folded)
    folded = re.sub(r"(\d)\s*[x×]\s*(?=\d)", r"\1 ", folded)
    folded = re.sub(r"\b([13])\s*-?\s*(?:PH|Ph|ph)\b", r"\1 PH", folded)
    for count, word in ((1, "single|one|mono"), (3, "three")):
        folded = re.sub(rf"\b(?:{word})[\s-]*ph(?:ase)?s?\b", f"{count} PH", folded, flags=re.I)

    def one(match: re.Match[str]) -> str:
        word = re.sub(r"\s+", " ", match[1].lower())
        if word.startswith(("ins", "th")):
            return "INS"
        return "COS" if word.startswith("cos") else _AS_ONE[word]

    return _PAIRED.sub(one, folded)


class _Reader:
    def __init__(self, text: str) -> None:
        self._tokens = list(_TOKEN.finditer(text))
        self._fields: dict[str, str] = {}
        self._left: list[str] = []
        self._free: str | None = None  # a figure no word has taken yet
        self._label: tuple[str, str] | None = None  # a unit that waits for its figure
        self._text: str = ""  # a label that waits for a word
        self._alternating = False  # “230 V~”: one phase, where no other is told
        self._last = ""  # the field that was filled last

    def read(self) -> Pasted:
        """Return what was found."""
        after = 0
        for number, token in enumerate(self._tokens):
            if number < after:
                continue
            if self._text and not self._known(token[0]):
                after = self._glue(number)
                continue
            word = token["word"] or token["other"]
            if word:
                self._word(word)
            else:
                self._figure(" ".join(token[0].rstrip("~").split()))
                if token["tail"]:
                    self._phases()
        self._drop()
        self._bare_volts()
        if SERVICE_AMPS in self._fields:
            self._left.append(f"{SERVICE_AMPS} {self._fields.pop(SERVICE_AMPS)}")
        if self._alternating:
            self._fields.setdefault("phases", "1")
        return Pasted(self._fields, tuple(self._left))

    def _bare_volts(self) -> None:
        """Take a figure that stands alone beside the phases for the volts: `1~ 230`."""
        bare = [x for x in self._left if re.fullmatch(rf"{_RANGE}(?:/{_RANGE})*", x)]
        if "phases" in self._fields and "volt" not in self._fields and len(bare) == 1:
            volt = float(re.match(_FIGURE, bare[0])[0].replace(",", "."))  # type: ignore[index]
            if LEAST_VOLT <= volt <= MOST_VOLT:
                self._left.remove(bare[0])
                self._put("volt", bare[0])

    def _known(self, word: str) -> bool:
        return word.strip(".,;").upper() in _UNITS or word.strip(".,;").upper() in _TEXTS

    def _glue(self, number: int) -> int:
        """Give a waiting label its word, with what stands on without a blank; return what is next."""
        text, end = "", self._tokens[number].start()
        while number < len(self._tokens) and self._tokens[number].start() == end:
            text += self._tokens[number][0]
            end = self._tokens[number].end()
            number += 1
        self._put(self._text, text.strip(".,;"))
        self._text = ""
        return number

    def _figure(self, figure: str) -> None:
        if self._label is not None and self._label[0] == "phases" and figure not in ("1", "3"):
            self._label = None
        if self._label is not None:
            field, suffix = self._label
            self._label = None
            self._put(field, figure + suffix)
        else:
            self._drop()
            self._free = figure

    def _word(self, word: str) -> None:
        plain = word.strip(".,;()[]").upper().replace("Μ", "µ").replace("ΜF", "µF")
        self._text = ""
        if plain in ("~", "PHASE~"):
            self._phases()
        elif plain in ("°C", "C") and self._free is not None:
            self._put("ambient", f"{self._take()} °C")
        elif plain == "°C" and self._last == "ambient":
            return
        elif plain in ("3PH", "1PH"):
            self._put("phases", plain[0])
        elif plain in _UNITS or word in _UNITS:
            self._unit(_UNITS[plain if plain in _UNITS else word])
            self._alternating |= plain == "V~"
        elif re.fullmatch(r"IP\s?\d\d", plain):
            self._put("enclosure", plain.replace(" ", ""))
        elif re.fullmatch(r"\d{2,3}[A-Z]{1,2}", plain):
            self._put("frame", plain)
        elif plain in _TEXTS:
            self._drop()
            self._text = _TEXTS[plain]
        elif plain in _ALONE:
            self._drop()
            alone = _ALONE[plain]
            self._put(*(alone or ("rotation", plain)))
        elif plain in ("UNREADABLE", "?"):
            self._left.append("unreadable")
        else:
            self._drop()
            self._left.append(word)

    def _unit(self, unit: tuple[str, str]) -> None:
        field, suffix = unit
        if self._free is not None:
            if field == "volt" and self._last == "capacitor" and "/" not in self._free:
                self._put("capacitor", f"{self._fields.pop('capacitor')} {self._take()} V")
                return
            self._put(field, self._take() + suffix)
        else:
            self._label = unit

    def _phases(self) -> None:
        if self._free in ("1", "3"):
            self._put("phases", self._take())

    def _take(self) -> str:
        figure, self._free = self._free or "", None
        return figure

    def _drop(self) -> None:
        if self._free is not None:
            self._left.append(self._take())

    def _put(self, field: str, text: str) -> None:
        if field in self._fields and field != "capacitor":
            self._left.append(text)
            return
        self._last = field
        self._fields[field] = text
