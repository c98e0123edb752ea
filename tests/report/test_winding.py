"""The winding sheet, its document and its CSV: of whole, partial and contradictory records."""

import io
import json

import pytest
from pypdf import PdfReader

from careful_coil.core.ledger import judge
from careful_coil.core.rewind.layout import three_phase
from careful_coil.core.settings import Settings
from careful_coil.documents.winding import coils_csv, winding_document
from careful_coil.report.winding import winding_sheet
from tests.core.logs import job_of, plate, ticket
from tests.core.test_winding_record import SAW, noted

TICKET = [*ticket(name="School, bandsaw"), *plate(phases="3", volt="400", hertz="50", amp="5.1")]


def words_of(pdf: bytes) -> str:
    pages = PdfReader(io.BytesIO(pdf)).pages
    return " ".join(" ".join(p.extract_text().split()) for p in pages)


def test_the_sheet_has_record_figures_joints_and_turns() -> None:
    judged = judge(job_of(*TICKET, *noted(SAW)), Settings())
    words = words_of(winding_sheet(219, judged, Settings()))
    for part in (
        "Winding: School, bandsaw",
        "STILL TO READ: lead exit end",
        "0.902",
        "U, circuit 1: lead on 1s; 1f–4f, 4s–7s, 7f–10f; out at 10s.",
        "U group 1: 1-8: 28, 2-9: 28, 3-10: 28",
        "370 °C",
    ):
        assert part in words


@pytest.mark.parametrize(
    "told", [{}, {"slots": "36"}, {"slots": "35", "poles": "4"}, SAW | {"circuits": "3"}]
)
def test_records_that_are_not_whole_give_a_sheet_too(told: dict[str, str]) -> None:
    judged = judge(job_of(*TICKET, *noted(told)), Settings())
    assert "With it" in words_of(winding_sheet(219, judged, Settings()))
    document = winding_document(219, judged, Settings())
    assert document.data == told


def test_the_document_holds_every_coil_and_figure() -> None:
    judged = judge(job_of(*TICKET, *noted(SAW)), Settings())
    document = winding_document(219, judged, Settings())
    told = json.loads(document.model_dump_json())
    assert (told["format"], told["version"], told["number"]) == ("careful-coil/winding", 1, 219)
    coils = three_phase(36, 4, span=7).coils
    assert [(c["start"], c["finish"], c["way"]) for c in told["coils"]] == [
        (c.start, c.finish, c.sense) for c in coils
    ]
    assert {f["name"]: f["value"] for f in told["worked"]}["turns"] == 336
    lines = coils_csv(document).splitlines()
    assert lines[0] == "coil,phase,group,start,finish,way,turns"
    assert lines[4] == "4,W,2,4,11,-1,28"
    assert len(lines) == 37
