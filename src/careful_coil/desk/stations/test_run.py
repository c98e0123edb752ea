"""Test run: made ready, run on the bench by its own kind, what it says, before and after."""

from careful_coil.desk.session import Session
from careful_coil.desk.stations.parted import Groups, PartedPage
from careful_coil.desk.theme import Theme
from careful_coil.desk.trial.meaning import MeaningPart
from careful_coil.desk.trial.ready import ReadyPart
from careful_coil.desk.trial.run import RunPart
from careful_coil.desk.trial.stopped import StoppedPart

GROUPS: Groups = (
    ReadyPart,
    RunPart,
    StoppedPart,
    MeaningPart,
)
CAUTION = (
    "Clamped, earthed, guarded, meter on. Capacitors discharged before and after. Supply at zero and read as "
    "zero before any lead is moved."
)
AT = {"covers-off": "ready", "covers-on": "ready", "stall": "run"}


class TestRunPage(PartedPage):
    """The station."""

    __test__ = False  # the name is not that of a test

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Test run", CAUTION, GROUPS)

    def put_cursor(self, field: str) -> bool:
        """Open the part that what is asked for belongs to."""
        if field in AT:
            self.open_part(AT[field])
            return True
        return super().put_cursor(field)

    def start(self) -> bool:
        """Begin where the sheet is: making ready, or the run."""
        job = self.session.open
        now = job.judged.job.trials.now if job else None
        if now is not None and now.ready:
            self.turn_to("run")
            return False
        self.open_part("ready")
        return True
