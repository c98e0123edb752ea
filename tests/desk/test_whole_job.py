"""One motor through all nine stations, from unknown leads to release, by keys alone; a process killed in the middle."""

import os
import shutil
import signal
import subprocess
import sys
from pathlib import Path

from pypdf import PdfReader

from careful_coil.core.settings import Settings
from careful_coil.core.stations import STATIONS
from careful_coil.desk.gear.why import WhyPart
from careful_coil.desk.stations.mechanics import MechanicsPage
from careful_coil.desk.stations.start_gear import StartGearPage
from careful_coil.desk.stations.winding import WindingPage
from careful_coil.records import RecordsThread
from tests.desk.driver import CTRL, SHIFT, Bench, Key
from tests.desk.hands import station, typed
from tests.desk.test_test_run import begin, take_ramp
from tests.desk.test_winding import TWO_LAYERS

ROOT = Path(__file__).parents[2]


def take_until(bench: Bench, station: str) -> int:
    """Take every suggested reading of the Leads station; return how many."""
    taken = 0
    while bench.judged.next is not None and bench.judged.next.station == station:
        before = len(bench.judged.job.readings)
        bench.key(Key.Key_Space)
        assert len(bench.judged.job.readings) == before + 1, bench.note
        taken += 1
        assert taken < 60
    return taken


def shaft_and_bearings(bench: Bench) -> None:
    """Say at Mechanics how the shaft feels and what both bearings are."""
    bench.ctrl(Key.Key_5)
    page = bench.page
    assert isinstance(page, MechanicsPage)
    assert page.put_cursor("feel")
    bench.key(Key.Key_1)
    page.open_part("bearings")
    bench.settle()
    for end in ("drive", "other"):
        typed(bench, f"{end}-number", "6206")
        typed(bench, f"{end}-state", "good")


def why_and_winding(bench: Bench) -> None:
    """Part the causes of the complaint at Start gear, take the winding in; come back with the gate as it was."""
    page = station(bench, 4, StartGearPage, "why")
    part = page.parts["why"]
    assert isinstance(part, WhyPart)
    for answer in ("Does not start",):
        next(b for b in part.asked.buttons if b.text() == answer).setFocus()
        bench.key(Key.Key_Return)
    typed(bench, "cause-test", "arrives arrives")
    assert bench.judged.facts.causes is not None
    likeliest = bench.judged.facts.causes.odds[0][0].name
    assert likeliest in ("lost-phase", "wrong-hookup")
    typed(bench, "cause-test", "found lost-phase")
    assert bench.judged.job.gear.cause == "lost-phase"
    station(bench, 6, WindingPage, "record")
    for field, text in TWO_LAYERS.items():
        typed(bench, f"winding-{field}", text)
    assert winding_holds(bench) == ["winding-ohms"]  # the coils read 3.8 Ω: 24 turns cannot be
    for field, text in (("turns", "36"), ("mass", "4.6 kg"), ("slot-area", "175")):
        typed(bench, f"winding-{field}", text)
    assert winding_holds(bench) == []


def winding_holds(bench: Bench) -> list[str]:
    own = (f for f in bench.judged.findings if f.station == "winding" and f.verdict == "hold")
    return [f.code for f in own]


def insulate(bench: Bench, title: str) -> None:
    """Make the insulation test that is asked for, and earth the winding after it."""
    assert bench.next == title
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Space)
    assert bench.next == "Earth the winding"
    bench.key(Key.Key_Return, CTRL)
    bench.pass_time(241, 30)
    bench.key(Key.Key_Return, CTRL)


def run(bench: Bench, covers: str) -> None:
    """Run it with the simulated meter, switch off, end the sheet."""
    bench.ctrl(Key.Key_8)
    assert bench.next == f"Begin a run, covers {covers}"
    begin(bench, covers)
    assert take_ramp(bench)[-1] == "Let it run 10 min, read again"
    assert bench.next == "Bench switch off, then End"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Return)
    assert bench.judged.job.trials.last(covers, -1) is not None


def test_a_whole_job_by_keys(bench: Bench) -> None:
    bench.ctrl(Key.Key_N)
    assert bench.station == "intake"
    bench.enter("Ropewalk, twister")
    assert bench.judged.job.name == "Ropewalk, twister"

    typed(bench, "complaint", "hums, does not start")
    assert bench.next == "Bench or site?"
    bench.key(Key.Key_Return, CTRL)
    bench.enter("1")
    assert bench.next == "Read the plate: phases"
    bench.key(Key.Key_Return, CTRL)
    for text in ("3", "230/400", "50", "11/6.4", "3 kW", "1440"):
        bench.enter(text)
    assert bench.judged.job.plate.volts == ((230, 230), (400, 400))

    assert bench.next == "Tag the leads"
    bench.key(Key.Key_Return, CTRL)
    assert bench.station == "leads"
    bench.enter("6")
    assert bench.judged.job.tags == tuple("ABCDEF")

    assert bench.next == "How do its leads come joined?"
    bench.key(Key.Key_Return, CTRL)
    bench.enter("apart")
    assert bench.next.startswith("Read ")
    bench.meter_here()
    taken = take_until(bench, "leads")
    assert 5 <= taken <= 15
    found = bench.judged.facts.identification
    assert found is not None
    assert found.to_close  # the reduced-voltage run closes it
    assert found.best.arrangement == "three-phase-6-lead"

    assert bench.next == "Make ready for the insulation test"
    bench.key(Key.Key_Return)
    assert bench.station == "insulation"
    for _ in range(4):
        bench.key(Key.Key_Space)
    bench.key(Key.Key_Return)
    insulate(bench, "Test the insulation")
    assert any(row.startswith("good: Insulation good") for row in bench.ledger())

    assert bench.next == "Turn the shaft by hand"
    shaft_and_bearings(bench)
    assert bench.next == "Look at fan and guard"
    bench.key(Key.Key_Return, CTRL)
    bench.enter("good")
    assert bench.next == "Name the supply"
    bench.key(Key.Key_Return, CTRL)
    assert bench.station == "connect"
    bench.enter("400")
    assert bench.judged.facts.connecting.plan is not None
    assert bench.judged.facts.connecting.plan.connection == "wye"
    bench.ctrl(Key.Key_M)
    assert bench.next == "Prove it dead"
    bench.key(Key.Key_Return)
    for _ in range(4):
        assert bench.next.startswith("Join ")
        bench.key(Key.Key_Return)
    assert not bench.judged.facts.connecting.to_make
    for pair in ("L1 to L2", "L1 to L3", "L2 to L3"):
        assert bench.next == f"Read {pair}"
        bench.key(Key.Key_Space)
    assert any(row.startswith("good: Line ohms right") for row in bench.ledger())
    assert bench.next == "Look it over before power"
    bench.key(Key.Key_Return, CTRL)
    for _ in range(3):
        bench.key(Key.Key_Space)
    assert bench.next == "Run it at 100 V"
    bench.ctrl(Key.Key_M)
    bench.key(Key.Key_Space)
    assert any(row.startswith("good: Reduced-voltage run good") for row in bench.ledger())

    why_and_winding(bench)
    assert bench.next == "Put the covers on"
    bench.key(Key.Key_Return, CTRL)
    bench.key(Key.Key_Return, CTRL)
    assert bench.next == "Make ready for the insulation test"
    bench.key(Key.Key_Return, CTRL)
    for _ in range(4):
        bench.key(Key.Key_Space)
    bench.key(Key.Key_Return)
    insulate(bench, "Test the closed motor")
    for place in ("frame", "drive end bell", "other end bell"):
        assert bench.next == f"Earth bond: {place}"
        bench.ctrl(Key.Key_M)
        bench.key(Key.Key_Space)
    run(bench, "on")
    assert bench.next == "Sign and let it go"
    bench.key(Key.Key_Return)
    bench.enter("AB")
    assert bench.judged.job.released is not None
    assert bench.message.startswith("Written:")
    file = Path(bench.message.removeprefix("Written: "))
    words = " ".join(page.extract_text() for page in PdfReader(file).pages)
    assert "Ropewalk, twister" in words
    assert "released" in words
    assert "Line ohms right" in words
    words = " ".join(words.split())
    assert "covers on, without load" in words
    assert "At the machine, to read and to set" in words
    assert set(bench.judged.pips) <= {"done", ""}
    assert {e.station for e in bench.job.entries} == set(STATIONS)


def test_undo_is_a_strike_and_can_be_taken_back(bench: Bench) -> None:
    bench.open("bakery")
    bench.ctrl(Key.Key_2)
    before = len(bench.judged.job.readings)
    bench.meter_here()
    bench.enter("AC 7.71")
    assert len(bench.judged.job.readings) == before + 1
    bench.ctrl(Key.Key_Z)
    assert len(bench.judged.job.readings) == before
    assert bench.job.entries[-1].body.kind == "struck"
    bench.key(Key.Key_Z, CTRL | SHIFT)
    assert len(bench.judged.job.readings) == before + 1


CHILD = """
import sys
from pathlib import Path
from tests.desk.driver import Bench, Key
bench = Bench(Path(sys.argv[1]), demo=True)
bench.ctrl(Key.Key_L)
bench.enter("9")
bench.key(Key.Key_Return)
bench.meter_here()
print("job", bench.job.id, flush=True)
for k in range(40):
    bench.key(Key.Key_Space)
    print("on disk", len(bench.judged.job.readings), flush=True)
"""


def test_killed_in_the_middle_every_recorded_reading_is_found_again(
    tmp_path: Path, template: Path
) -> None:
    shop, kill_after = tmp_path / "shop", 5
    shutil.copytree(template, shop)
    told = tmp_path / "told.txt"
    environment = os.environ | {"QT_QPA_PLATFORM": "offscreen", "PYTHONPATH": str(ROOT)}
    with told.open("wb") as errors:
        child = subprocess.Popen(
            [sys.executable, "-c", CHILD, str(shop)],
            stdout=subprocess.PIPE,
            stderr=errors,
            text=True,
            env=environment,
            cwd=ROOT,
        )
    assert child.stdout is not None
    job, shown = "", 0
    for line in child.stdout:
        word, _, rest = line.strip().rpartition(" ")
        if word == "job":
            job = rest
        elif word == "on disk":
            shown = int(rest)
            if shown >= kill_after:
                break
    child.send_signal(signal.SIGKILL)
    child.wait()
    child.stdout.close()
    assert shown == kill_after, told.read_text()
    records = RecordsThread(shop, Settings())
    records.start()
    entries = records.ask(lambda s: s.entries_of(job)).result()
    records.close()
    readings = [e for e in entries if e.body.kind == "reading"]
    assert len(readings) >= shown
