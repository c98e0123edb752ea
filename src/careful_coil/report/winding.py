"""The winding sheet: the record with its stator, what is worked out, the order of the joints, turns by coil."""

import io
from collections.abc import Iterator

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from careful_coil.core.errors import CoilError
from careful_coil.core.ledger import Judgement
from careful_coil.core.rewind.joints import circuits
from careful_coil.core.rewind.layout import Layout
from careful_coil.core.rewind.record import Record
from careful_coil.core.rewind.rules import left_to_read, plate_of
from careful_coil.core.rewind.worked import Worked, work_out
from careful_coil.core.settings import Settings
from careful_coil.core.sheets.winding import title_of
from careful_coil.core.terms import in_terms
from careful_coil.drawing.stator import draw_developed, draw_stator
from careful_coil.report.canvas import draw_shapes
from careful_coil.report.page import BOLD, MARGIN, REGULAR, Page, load_faces

STATOR_SCALE, ROLL_SCALE = 0.85 * mm, 1.2 * mm  # points a millimetre of the drawing
CAUTIONS = (
    "Copper not less than before, mean turn not longer, insulation class at least as before, air gap not machined.",
    "Burning out at most 370 °C at the core; core loss before and after: 20 % more is watched, hot spots hold it.",
    "The maker's data win over all that is worked out here.",
)


def winding_sheet(number: int, judged: Judgement, settings: Settings) -> bytes:
    """Return the winding sheet as PDF, also of a record that is not whole."""
    load_faces()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4, invariant=1, lang="en")
    canvas.setTitle(f"Winding of job {number}: {judged.job.name}")
    page = Page(
        canvas,
        f"Winding, job {number} · {judged.job.name}",
        lambda w: in_terms(w, judged.facts.settings),
    )
    record = judged.facts.winding
    worked = work_out(record, plate_of(judged.job), settings)
    page.text(f"Winding: {judged.job.name}", 16, bold=True)
    page.text(f"Job {number}", 9, token="quiet")
    page.rows([(title_of(f).capitalize(), t) for f, t in judged.job.winding.items()], 3)
    left = left_to_read(record)
    if left:
        page.text(
            f"STILL TO READ: {', '.join(title_of(f) for f in left)}.", 10, bold=True, token="hold"
        )
    for f in judged.findings:
        if f.station == "winding" and f.verdict in ("hold", "watch"):
            page.text(f"{f.verdict.upper()}: {f.subject}. {f.why}", 9)
    if worked.layout is not None:
        _stator(page, worked.layout)
    page.head("Worked out")
    page.rows(list(_figures(worked)), 3)
    if worked.layout is not None:
        _joints(page, worked.layout, record)
        _turns(page, worked.layout)
    page.head("With it")
    for line in CAUTIONS:
        page.text(line, 8.5)
    canvas.save()
    return buffer.getvalue()


def _stator(page: Page, layout: Layout) -> None:
    drawing = draw_stator(layout)
    page.room(drawing.height * STATOR_SCALE + 8)
    draw_shapes(page.canvas, drawing, MARGIN, page.y - 4, STATOR_SCALE, REGULAR, BOLD)
    page.y -= drawing.height * STATOR_SCALE + 8


def _figures(worked: Worked) -> Iterator[tuple[str, str]]:
    for f in worked.figures:
        if f.value is not None:
            title, _, rest = f.title.partition(", ")  # the label's column is narrow
            parts = [
                f.shown,
                rest,
                "(watch)" if f.mark == "watch" else "",
            ]
            yield title, " ".join(p for p in parts if p)


def _joints(page: Page, layout: Layout, record: Record) -> None:
    page.head("Joints: s start, f finish of a group")
    count, skip = record.whole("circuits") or 1, record.told.get("jumpers") == "skip"
    for phase in layout.phases:
        try:
            every = circuits(layout, phase, count, skip)
        except CoilError as error:
            page.text(str(error), 9, token="hold")
            return
        for k, c in enumerate(every, 1):
            joined = ", ".join(f"{a.words}–{b.words}" for a, b in c.joints) or "no joints"
            words = (
                f"{phase}, circuit {k}: lead on {c.begins.words}; {joined}; out at {c.ends.words}."
            )
            page.text(words, 9)
    drawing = draw_developed(layout, layout.phases[0])
    page.room(drawing.height * ROLL_SCALE + 6)
    draw_shapes(page.canvas, drawing, MARGIN, page.y - 4, ROLL_SCALE, REGULAR, BOLD)
    page.y -= drawing.height * ROLL_SCALE + 6


def _turns(page: Page, layout: Layout) -> None:
    """Write turns by coil, a group to a line."""
    page.head("Coils: slots and turns, group by group")
    for phase in layout.phases:
        for group in layout.groups(phase):
            coils = ", ".join(f"{c.start}-{c.finish}: {c.turns:g}" for c in group)
            way = "" if group[0].sense > 0 else ", reversed"
            page.text(f"{phase} group {group[0].group}{way}: {coils}", 8.5)
