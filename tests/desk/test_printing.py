"""Printing: a file or a printer by Qt's dialog, the print system's refusal in plain words; label pages."""

import io
from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtPrintSupport import QPrintDialog, QPrinter

from careful_coil.core.errors import BadDocument, RecordsRefused
from careful_coil.core.shop_lists import ShopLists
from careful_coil.desk import printing
from careful_coil.desk.driven import CTRL, SHIFT
from careful_coil.desk.printing import NOT_PRINTED, Printed, put_out
from careful_coil.report.motor_tag import motor_tag
from careful_coil.report.tag_strip import tag_strip
from tests.core.logs import READY, judged
from tests.desk.driver import Bench, Key

MARKS = [("A", "T1", "proven"), ("B", "T2", "guess"), ("C", "–", "open")]


def sizes(paper: bytes) -> list[tuple[int, int]]:
    """Return width and height of each page in mm."""
    boxes = [p.mediabox[2:] for p in PdfReader(io.BytesIO(paper)).pages]
    return [(round(float(w) / 72 * 25.4), round(float(h) / 72 * 25.4)) for w, h in boxes]


def test_the_sheet_goes_where_the_dialog_says(
    shared: Bench, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    shared.open("bakery")
    monkeypatch.setattr(QPrintDialog, "exec", lambda _: QPrintDialog.DialogCode.Rejected)
    shared.key(Key.Key_P, CTRL | SHIFT)
    assert shared.message == NOT_PRINTED
    file = tmp_path / "sheet.pdf"

    def chosen(dialog: QPrintDialog) -> QPrintDialog.DialogCode:
        dialog.printer().setOutputFormat(QPrinter.OutputFormat.PdfFormat)
        dialog.printer().setOutputFileName(str(file))
        return QPrintDialog.DialogCode.Accepted

    monkeypatch.setattr(QPrintDialog, "exec", chosen)
    shared.key(Key.Key_P, CTRL | SHIFT)
    shared.settle(lambda: shared.message.startswith("Written"))
    assert sizes(file.read_bytes())[0] == (210, 297)


def test_a_printer_gets_the_paper_with_its_copies_and_may_refuse_it(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    lp = tmp_path / "lp"
    lp.write_text(f'#!/bin/sh\necho "$@" > {tmp_path}/told; cat > {tmp_path}/got\n')
    lp.chmod(0o755)
    monkeypatch.setattr(printing.shutil, "which", lambda _: str(lp))
    assert put_out(b"%PDF", "Job 7", Printed(printer="bench", copies=2)) == "Job 7 is with bench."
    assert (tmp_path / "told").read_text() == "-d bench -n 2 -t Job 7\n"
    assert (tmp_path / "got").read_bytes() == b"%PDF"
    lp.write_text("#!/bin/sh\ncat >/dev/null\necho no such printer >&2; exit 1\n")
    with pytest.raises(RecordsRefused, match="bench did not take it: no such printer"):
        put_out(b"%PDF", "Job 7", Printed(printer="bench"))
    monkeypatch.setattr(printing.shutil, "which", lambda _: None)
    with pytest.raises(RecordsRefused, match="cups-client"):
        put_out(b"%PDF", "Job 7", Printed(printer="bench"))


def test_a_label_printer_gets_a_page_for_each_tag_and_the_motors_tag_as_large_as_it_fits() -> None:
    found = judged(*READY)
    lists = ShopLists().changed("labels", "leads 57x19; motor 62 × 40 mm")
    assert lists.label("leads") == (57.0, 19.0)
    assert sizes(tag_strip(12, found.job, MARKS, lists.label("leads"))) == [(57, 19), (57, 19)]
    assert sizes(tag_strip(12, found.job, MARKS)) == [(210, 297)]
    assert sizes(motor_tag(12, found, "2026-03-01", lists.label("motor"))) == [(62, 40)]
    assert ShopLists().label("motor") is None


@pytest.mark.parametrize(
    "wrong", ["leads", "leads 57", "cable 57x19", "leads 2x19", "leads 57x900"]
)
def test_a_label_that_nothing_can_be_printed_on_is_refused(wrong: str) -> None:
    with pytest.raises(BadDocument, match="labels"):
        ShopLists().changed("labels", wrong)
