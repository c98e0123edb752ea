"""The job sheet, A4: first what was wrong, what was done and what is to do; the readings behind it."""

import io
from collections.abc import Callable, Iterable
from pathlib import Path

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.condition.plain import for_the_customer
from careful_coil.core.condition.wall import TestWanted
from careful_coil.core.condition.wall_rules import curve_of, longest_curve
from careful_coil.core.connect.rotation import turns_words
from careful_coil.core.identify.history import history, reading_words
from careful_coil.core.job import Finding
from careful_coil.core.job.digest import in_short, log_digest
from careful_coil.core.job.meter_words import meter_line
from careful_coil.core.ledger import Judgement
from careful_coil.core.ledger.for_customer import for_customer
from careful_coil.core.ledger.gate import way_out
from careful_coil.core.readings import Frame, Kick, Reading, Resistance, Switch, ohm_value
from careful_coil.core.terms import in_terms
from careful_coil.core.values import show, show_ohm
from careful_coil.core.winding.markings import in_marking
from careful_coil.drawing.card import proved
from careful_coil.drawing.curve import draw_test
from careful_coil.drawing.scene import hookup_drawing
from careful_coil.report.canvas import draw_shapes, ink
from careful_coil.report.gear import gear_lines
from careful_coil.report.mechanics import mechanics_lines
from careful_coil.report.page import BOLD, MARGIN, REGULAR, Page, load_faces, write_paper
from careful_coil.report.trial import trial_lines

SAID = {"unproven": "to do"}
CURVE_FROM_S = 60.0  # a shorter test is told in figures
CAUTIONS = (
    "Isolate, lock out and prove dead before you touch a lead. Discharge every capacitor and prove it with a meter.",
    "Work on the supply is for qualified people under the local code.",
    "At the machine: measure the volts at the terminals under load, compare amps with the plate, see the direction, "
    "set the overload, feel the temperature an hour later.",
)


def write_sheet(path: Path, number: int, judged: Judgement) -> None:
    """Write the sheet whole or not at all. Raises: CannotWrite."""
    write_paper(path, sheet(number, judged))


def sheet(number: int, judged: Judgement, *, customer: bool = False) -> bytes:
    """Return the job sheet as PDF; the customer's is without readings of leads, odds and the shop's remarks."""
    load_faces()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4, invariant=1, lang="en")
    canvas.setTitle(f"Job {number}: {judged.job.name}")
    page = Page(canvas, f"Job {number} · {judged.job.name}", _terms(judged))
    _identity(page, number, judged)
    for head, words in for_customer(judged).lines():
        page.head(head)
        page.text(words)
    _bad(page, judged)
    _hookup(page, judged)
    _installer(page, judged)
    _cautions(page)
    _signature(page, judged)
    page.turn()  # what was read comes behind what was done and is to do
    if not customer:
        _leads(page, judged)
    _condition(page, judged, customer)
    _lines(page, "Start gear", gear_lines(judged))
    _lines(page, "Mechanics", mechanics_lines(judged))
    _lines(page, "Test run", trial_lines(judged))
    _reasons(page, judged)
    _findings(page, judged, customer)
    meter = meter_line(judged.job.meter_used)
    if meter:
        page.text(f"Measured with {meter}.", 8, token="quiet")
    canvas.save()
    return buffer.getvalue()


def _terms(judged: Judgement) -> Callable[[str], str]:
    """Return what puts the paper's own words into the shop's terms."""
    return lambda words: in_terms(words, judged.facts.settings)


def _bad(page: Page, judged: Judgement) -> None:
    """Write what is wrong with it now, or still open: nothing of a motor that may go."""
    bad = [f for f in judged.gate if f.verdict == "hold"]
    left = [f.subject[0].lower() + f.subject[1:] for f in judged.gate if f.verdict == "unproven"]
    if bad:
        page.head("Found bad: do not connect")
        for f in bad:
            page.text(f"{f.subject}. {f.why}", 9, token="hold")
    if left:
        page.head("Still needed before release")
        page.text("; ".join(left) + ".")


def _cautions(page: Page) -> None:
    page.head("With the motor")
    page.text(" ".join(CAUTIONS), 8)


def _identity(page: Page, number: int, judged: Judgement) -> None:
    job, plate = judged.job, judged.job.plate
    page.text(job.name, 18, bold=True)
    state = "released" if judged.released else "NOT RELEASED" if judged.gate else "ready to sign"
    if way_out(job):
        reason = job.let_go.reason if job.let_go else ""
        state = f"{way_out(job).upper()}: DO NOT CONNECT. {reason}"
    shut = bool(judged.gate or way_out(job))
    page.text(f"Job {number} · {state}", 10, bold=shut, token="hold" if shut else "ink")
    if job.follows is not None:
        page.text(f"Follows job {job.follows.number}, released before.", 9)
    page.y -= 4
    page.rows(
        [
            ("Customer", job.ticket.get("customer", "")),
            ("Complaint", job.ticket.get("complaint", "")),
            ("Phases", plate.printed("phases")),
            ("Volts", plate.printed("volt")),
            ("Hertz", plate.printed("hertz")),
            ("Amps", plate.printed("amp")),
            ("Power", plate.printed("power")),
            ("Rev/min", plate.printed("rpm")),
        ]
    )


def _leads(page: Page, judged: Judgement) -> None:
    job, naming = judged.job, judged.facts.naming
    if not job.leads:
        return
    words = {
        "proven": "proven by readings",
        "kicked": "proven by kicks",
        "marked": "as marked, ohms agree",
        "owed": "by their ohms",
        "guess": "guesses, not proven",
    }
    slug = naming.arrangement.slug if naming.arrangement is not None else ""
    prints = {x.tag: x.marking for x in job.leads}
    marks = {t: in_marking(slug, n, prints.get(t, "")) for t, n in naming.names.items()}
    page.head(f"Leads: {words.get(naming.word, 'not identified')}")
    page.rows(
        [
            (
                f"Tag {lead.tag}",
                f"{marks.get(lead.tag, '?')}  {'/'.join(x for x in (lead.colour, lead.tracer) if x)}",
            )
            for lead in job.leads
        ],
        columns=3,
    )
    readings = [w for w in (_reading_words(t.reading) for t in job.readings) if w]
    page.y -= 4
    page.text(
        "Readings, ohms as read: " + "; ".join(readings) + "." if readings else "No readings.", 8.5
    )
    if judged.facts.evidence is not None and readings:
        moved = history(judged.job, judged.facts.evidence)
        shares = " ".join(f"{100 * m.odds:.0f}" for m in moved)
        if moved:
            page.text(f"Odds of the winding after each of them, in %: {shares}.", 8.5)
    never = judged.facts.identification.never_energise if judged.facts.identification else ()
    if never:
        pairs = ", ".join(f"{a}–{b}" for a, b in never)
        page.text(f"Never line voltage across: {pairs}.", 9, bold=True, token="hold")


def _reading_words(reading: object) -> str:
    if isinstance(reading, Resistance):
        ends = "–".join(e if isinstance(e, str) else "+".join(e) for e in reading.between)
        return f"{ends} {show(ohm_value(reading.value))}"
    if isinstance(reading, Frame):
        return f"{reading.lead}–frame {show(ohm_value(reading.value))}"
    if isinstance(reading, Switch):
        return f"{'–'.join(reading.between)} {reading.value} with the switch"
    if isinstance(reading, Kick):
        return f"kick {''.join(reading.source)}→{''.join(reading.sense)} {reading.value}"
    return reading_words(reading) if isinstance(reading, Reading) else ""


def _condition(page: Page, judged: Judgement, customer: bool) -> None:
    sentences = () if customer else for_the_customer(judged.findings)  # his own are told above
    if sentences:
        page.head("The winding, in plain words")
        for words in sentences:
            page.text(words)
    page.head("Insulation")
    if not judged.job.tested.tests:
        page.text("Not tested.")
    for logged in judged.job.tested.tests[-6:]:
        test = logged.body
        least = "at least " if test.above else ""
        what = TestWanted(parts=test.parts, against=test.against).words()
        page.text(
            f"{logged.at[:10]}, {what}: {least}{test.megohm:g} MΩ at {test.at_c:g} °C with {test.test_volt:g} V DC."
        )
    verdict = next((f for f in judged.findings if f.code == "insulation"), None)
    if verdict is not None and judged.job.tested.tests:
        page.text(f"{verdict.subject}: {verdict.why} ({verdict.source})")
    longest = longest_curve(judged.job, judged.facts.wall)
    if longest is not None and longest.body.length_s > CURVE_FROM_S:
        drawing = draw_test(longest.body.readings, curve_of(longest.body), (), 130.0, 46.0)
        scale = 0.8 * mm
        page.room(drawing.height * scale + 6)
        draw_shapes(page.canvas, drawing, MARGIN, page.y - 2, scale, REGULAR, BOLD)
        page.y -= drawing.height * scale + 4


def _lines(page: Page, head: str, lines: Iterable[str]) -> None:
    """Write a station's own lines under its name; nothing where there are none."""
    told = list(lines)
    if told:
        page.head(head)
    for line in told:
        page.text(line, 9)


def _hookup(page: Page, judged: Judgement) -> None:
    state = judged.facts.connecting
    page.head("Hookup")
    if state.plan is None:
        page.text(state.why)
        return
    supply = judged.job.supply
    if supply is not None:
        seen = "measured" if supply.measured or judged.job.joined.read else "assumed"
        page.text(
            f"For {supply.volt:g} V, {supply.hertz:g} Hz, {supply.phases}-phase ({seen}): "
            f"{judged.facts.connection}."
        )
    drawing = hookup_drawing(judged, state.drawn or state.plan)
    if drawing is not None:
        scale = 0.46 * mm
        page.room(drawing.height * scale + 6)
        draw_shapes(page.canvas, drawing, MARGIN, page.y - 2, scale, REGULAR, BOLD)
        x = MARGIN + drawing.width * scale + 10 * mm
        _beside(page, x, judged)
        page.y -= drawing.height * scale + 4
    page.text(
        f"Turns {turns_words(judged.job, judged.facts.connecting.view)}. "
        f"{proved(judged)[0].upper()}{proved(judged)[1:]}."
    )


def _installer(page: Page, judged: Judgement) -> None:
    """Write what the change asks of whoever connects it, with what was waived; the reasons come behind."""
    done = judged.job.joined.installer
    lines = []
    for line in judged.facts.installer:
        state = done.get(line.name)
        waived = f" (waived: {state.words})" if state and state.state == "waived" else ""
        lines.append(f"{line.words}{waived}.")
    if lines:
        page.head("For the installer: the local code decides")
        page.text(" ".join(lines), 8.5)
    if judged.facts.commission and not way_out(judged.job):
        page.head("At the machine, to read and to set")
        for k, line in enumerate(judged.facts.commission, 1):
            page.text(f"{k}  {line.words}: ............................", 8.5)


def _reasons(page: Page, judged: Judgement) -> None:
    """Write why the installer is asked for what stands before."""
    every = [*judged.facts.installer, *(() if way_out(judged.job) else judged.facts.commission)]
    told = [f"{line.words}: {line.why}" for line in every if line.why]
    if told:
        page.head("Why the installer is asked")
    for words in told:
        page.text(words, 8, token="quiet")


def _beside(page: Page, x: float, judged: Judgement) -> None:
    """Joints and line ohms beside the drawing."""
    state, y = judged.facts.connecting, page.y - 10
    if state.plan is None:
        return
    made = {frozenset(j) for j in state.made}
    lines = [
        f"{state.said(j)}{'  made, pulled' if frozenset(j) in made else '  not made'}"
        for j in state.plan.joints
    ]
    for pair, ohm in (state.expected or {}).items():
        read = (state.read or {}).get(pair)
        shown = f", read {show_ohm(read)}" if read is not None else ", not read"
        lines.append(f"{pair.replace('-', ' to ')}: {show_ohm(ohm)} expected{shown}")
    page.canvas.setFillColor(ink("ink"))
    for line in lines:
        page.canvas.setFont(REGULAR, 8)
        page.canvas.drawString(x, y, line)
        y -= 11


def _findings(page: Page, judged: Judgement, customer: bool) -> None:
    """Write what was found; for the customer what the gate asks and what was found bad."""
    page.head("Findings")
    for f in judged.findings:
        if f.verdict != "note" and (not customer or f.gate or f.verdict == "hold"):
            waived = (judged.job.waived or {}).get(f.code)
            aside = f" Waived by {waived.second}: {waived.reason}." if waived else ""
            page.text(
                f"{SAID.get(f.verdict, f.verdict).upper()}: {f.subject}. {f.why}{aside}",
                8.5,
                token=_tone(f),
            )
    by_word, put_aside = len(judged.job.attested or {}), len(judged.job.waived or {})
    if by_word or put_aside:
        page.text(f"In place of proof: {by_word} by word, {put_aside} waived.", 8.5)


def _tone(f: Finding) -> str:
    return "hold" if f.verdict == "hold" else "ink"


def _signature(page: Page, judged: Judgement) -> None:
    page.room(34)
    page.y -= 24
    page.canvas.setStrokeColor(ink("ink"))
    page.canvas.line(MARGIN, page.y, MARGIN + 70 * mm, page.y)
    done = judged.job.released
    if judged.released and done is not None and done.body.kind == "released":
        page.canvas.setFont(BOLD, 11)
        page.canvas.setFillColor(ink("ink"))
        how = " by PIN" if done.body.by_pin else ""
        day = done.at[:16].replace("T", " ")
        page.canvas.drawString(MARGIN, page.y + 4, f"{done.body.signed}{how}   {day} UTC")
    words = "Signature: not released"
    if judged.released:
        short = in_short(log_digest(judged.job))
        words = f"Signed for release, over {len(judged.job.log)} entries; digest of the log {short} (SHA-256)"
    page.text(words, 8, token="quiet")
