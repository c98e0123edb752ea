"""What Next says, done: logged where a key of its own does it, else the cursor put where it is answered."""

from typing import TYPE_CHECKING

from careful_coil.core.stations import Station

if TYPE_CHECKING:
    from careful_coil.core.job import AnyBody
    from careful_coil.core.ledger import Judgement, NextStep
    from careful_coil.core.ledger.acts import Act
    from careful_coil.desk.window import Window


class Doing:
    """The hand that does what the card says."""

    def __init__(self, window: "Window") -> None:
        self._window, self._session = window, window.session

    def next(self) -> None:
        """Do what the Next card says."""
        job = self._session.open
        if job is not None:
            self._do(job.judged.next, job.judged)

    def connect(self) -> None:
        """Do the step that Connect shows, whatever other stations still want."""
        job = self._session.open
        if job is not None:
            self._do(next(iter(job.judged.at_connect), None), job.judged)

    def to_next(self) -> None:
        """Go where Next asks: to the strip for what a key logs, which leaving a field empty must not."""
        job = self._session.open
        step = job.judged.next if job is not None else None
        if step is None or step.station != self._session.station:
            self.next()
        elif step.focus:
            self.go_on(step)
        else:
            self._window.to_strip()

    def go_on(self, step: "NextStep | None") -> None:
        """Put the cursor where Next asks on at this station: on the strip where Enter there is the answer."""
        if step is None:
            return
        if self._act(step) is not None or any(q.reader == "strip" for q in step.asks):
            self._window.to_strip()
        elif step.focus:
            self._window.pages[self._session.station].put_cursor(step.focus)

    def _act(self, step: "NextStep") -> "Act | None":
        """Return what logs a step by Enter on the strip, nothing where more than that is asked."""
        from careful_coil.core.ledger.acts import ACTS

        return ACTS.get(step.act)

    def _do(self, step: "NextStep | None", judged: "Judgement") -> None:
        """Log what a step is done by, where its station is open; else go to where it is done."""
        if step is None:
            return
        from careful_coil.core.probes import PROBES

        here = self._session.station == step.station
        act = self._act(step) if here else None
        page = self._window.pages[self._session.station]
        if act is not None:
            self._log(act(judged, step), step.station)
        elif not (here and step.act == "discharge" and page.discharge()):
            self._session.pick(None)
            self._window.go(step.station, step.focus)
            if self._act(step) is not None:
                self._window.to_strip()
            if here and step.act in PROBES:
                self._say_how()

    def _log(self, body: "AnyBody", station: Station) -> None:
        def refused(words: str) -> None:
            """Ask for the initials where they are what is missing, and log it then."""
            from careful_coil.core.ledger.admission import INITIALS

            if words == INITIALS:
                self._window.way.say("", "")
                self._session.held.append(again)
                self._session.who_wanted.emit()

        def again() -> None:
            if self._session.who:  # nobody: it is left
                self._log(body, station)

        self._session.record(body, station=station, failed=refused)

    def _say_how(self) -> None:
        bound = self._session.bound
        live = bool(bound and bound.instrument)
        words = (
            "Space takes it, or type it and press Enter." if live else "Type it and press Enter."
        )
        self._window.strip.note.say(words, "note")
        self._window.to_strip()
