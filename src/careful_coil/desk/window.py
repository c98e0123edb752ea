"""The window: rack, bench, ledger, strip; keys go to one place each."""

from functools import partial
from typing import TYPE_CHECKING

from PySide6.QtCore import QRect, Qt, QTimer, Signal
from PySide6.QtGui import (
    QCloseEvent,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QHBoxLayout,
    QMainWindow,
    QStackedWidget,
    QVBoxLayout,
)

from careful_coil.desk.beginning import Beginning
from careful_coil.desk.bundles import is_bundle, take_in
from careful_coil.desk.doing import Doing
from careful_coil.desk.follow import Follow
from careful_coil.desk.keys import KeySheet
from careful_coil.desk.leaving import Leaving
from careful_coil.desk.ledger import Ledger
from careful_coil.desk.menus import fill, retell
from careful_coil.desk.notices import Notices
from careful_coil.desk.pages import PAGES, Pages
from careful_coil.desk.painted import Ground
from careful_coil.desk.papers import write_job_sheet, write_stubs, write_tags
from careful_coil.desk.rack import Rack
from careful_coil.desk.reading import Reading
from careful_coil.desk.said import speak
from careful_coil.desk.session import Session
from careful_coil.desk.shared.page import Page
from careful_coil.desk.standback import StandBack
from careful_coil.desk.strip import Strip
from careful_coil.desk.theme import Theme
from careful_coil.desk.unwanted import taken
from careful_coil.desk.way import Way

if TYPE_CHECKING:
    from careful_coil.desk.settings_page import SettingsPage

ROOM_FOR_RACK = 1000  # pixels at 100 % text below which the rack folds by itself
LOOKS_MS = 15_000  # between two looks at the clock


class Window(QMainWindow):
    """The desk."""

    demo_wanted = Signal()  # beside this shop, in a window of its own
    closed = Signal()  # all is on disk, nothing of the shop is open any more

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self.setWindowTitle("Careful Coil")
        self.session, self.theme = session, theme
        speak(session.settings)
        self.notices = Notices(self, session)
        self._releasing = ""
        self._folded_by_hand: bool | None = None
        self.rack, self.ledger = Rack(session, theme), Ledger(session, theme)
        self.strip, self.way = Strip(session, theme), Way(theme)
        self.stack = QStackedWidget()
        self.pages = Pages(session, lambda: self.theme, self._made)
        self._settings_page: SettingsPage | None = None
        self.whole = self._lay_out()
        self._follow = Follow(self.focusWidget)
        self.doing = Doing(self)
        self.keys = KeySheet(self.whole, theme)
        self.looks = QTimer(self)  # at the clock: a proof of no volts lapses by it
        self.looks.timeout.connect(session.by_the_clock)
        self.looks.start(LOOKS_MS)
        self.standback = StandBack(self.whole, session, self.strip, theme)
        self.beginning, self.reading = Beginning(self), Reading(self)
        self.leaving = Leaving(session, self.close)
        self._connect()
        fill(self)
        self.set_theme(theme)
        self.setAcceptDrops(True)
        self.resize(1280, 800)

    def _lay_out(self) -> Ground:
        whole = Ground(self.theme)
        bench = QVBoxLayout()
        bench.setSpacing(0)
        bench.addWidget(self.way)
        bench.addWidget(self.stack, 1)
        top = QHBoxLayout()
        top.setSpacing(0)
        top.addWidget(self.rack)
        top.addLayout(bench, 1)
        top.addWidget(self.ledger)
        column = QVBoxLayout(whole)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(top, 1)
        column.addWidget(self.strip)
        self.setCentralWidget(whole)
        return whole

    def _connect(self) -> None:
        s = self.session
        self.rack.opened.connect(s.open_job)
        self.rack.sum_wanted.connect(self.reading.unfold)
        self.rack.file_wanted.connect(partial(take_in, s))
        self.ledger.card.pressed.connect(self.doing.next)
        self.strip.next_wanted.connect(self.doing.next)
        self.strip.line.paged.connect(self._page_on)
        self.rack.next_wanted.connect(self.doing.next)
        self.session.next_wanted.connect(self.doing.to_next)
        self.rack.who.returnPressed.connect(self.to_strip)
        self.way.chosen.connect(self.go)
        s.job_opened.connect(self._begun)
        s.job_changed.connect(self.refresh)
        s.entered.connect(self._entered)
        s.target_changed.connect(self._targeted)
        s.station_wanted.connect(self.go)
        s.strip_wanted.connect(self.to_strip)
        s.told.connect(self.way.say)
        s.settings_changed.connect(self._other_terms)

    def _made(self, page: Page) -> None:
        """Take a station's page in as it is first opened, and hear what it asks of the window."""
        self.stack.addWidget(page)
        page.joint_wanted.connect(self.doing.connect)
        page.stubs_wanted.connect(partial(write_stubs, self.session, self.wrote))
        page.tags_wanted.connect(partial(write_tags, self.session, self.wrote))

    @property
    def settings_page(self) -> "SettingsPage":
        """Return the shop's settings, made when they are first opened."""
        if self._settings_page is None:
            from careful_coil.desk.settings_page import SettingsPage

            self._settings_page = SettingsPage(self.session, self.theme)
            self._settings_page.set_theme(self.theme)
            self.stack.addWidget(self._settings_page)
        return self._settings_page

    def _other_terms(self) -> None:
        """Speak in the terms and the language the shop chose now."""
        if speak(self.session.settings):
            retell(self)
            for page in (*self.pages.values(), *filter(None, [self._settings_page])):
                page.set_theme(self.theme)
        self.set_theme(self.theme)

    # --- what is shown --------------------------------------------------------------------------

    def set_theme(self, theme: Theme) -> None:
        """Show everything in another theme or text size."""
        self.theme = theme
        self.menuBar().setStyleSheet(theme.sheet())
        self.whole.set_theme(theme)
        self.rack.set_theme(theme)
        self.ledger.set_theme(theme)
        self.strip.set_theme(theme)
        self.way.set_theme(theme)
        self.standback.set_theme(theme)
        self.beginning.set_theme(theme)
        self.reading.set_theme(theme)
        page = self.stack.currentWidget()
        if isinstance(page, Page):
            self._bring(page)
        self._make_room()
        self.refresh()

    def _bring(self, page: Page) -> None:
        """Bring a page into sight, in the theme there is now."""
        if page.theme != self.theme:
            page.set_theme(self.theme)
        self.stack.setCurrentWidget(page)

    def refresh(self) -> None:
        """Show the open job."""
        job = self.session.open
        self.way.show_judgement(
            job.judged if job else None, job.number if job else 0, self.session.station
        )
        self.standback.update()
        if job is not None:  # no page is made before it is known for what
            self.beginning.over()
            page = self.pages[self.session.station]
            if self._settings_page is None or self.stack.currentWidget() is not self._settings_page:
                self._bring(page)
            page.show_judgement(job.judged)
            step = job.judged.next
            here = step is not None and step.station == self.session.station
            page.mark_next(step.focus if step is not None and here else "")
            self._released()
            self.doing.go_on(self._follow.on(job.judged.next, self.session.station))

    def _begun(self) -> None:
        """Put the cursor on the strip once the first motor is shown, unless a hand is at the finder by now."""
        self.session.job_opened.disconnect(self._begun)
        if self.focusWidget() is self.rack.search and not self.rack.search.text():
            self.to_strip()

    def _entered(self) -> None:
        job = self.session.open
        self._follow.entered(job.judged.next if job is not None else None)

    def _targeted(self) -> None:
        if self.session.open is not None and self.session.station == "leads":
            self.pages["leads"].show_judgement(self.session.open.judged)

    def go(self, station: str, field: str = "") -> None:
        """Open a station and put the cursor where it is wanted, else on the strip."""
        if station not in PAGES:
            self.way.say("That station is not part of this version.", "note")
            return
        if self.session.open is None:
            self.beginning.show()
            return
        if self.session.open.judged.job.loose and station not in ("leads", "intake"):
            self.way.say("Leads alone: give it a name, and it becomes a job.", "note")
            return
        if station != self.session.station:
            self.strip.note.say("", "")  # what was said there
        self.session.station = station
        self._bring(self.pages[self.session.station])
        self.ledger.card.look_from(station)
        self.way.say("", "")
        self.refresh()
        page = self.pages[self.session.station]
        if not (field and page.put_cursor(field)) and not page.start():
            self.to_strip()

    def _page_on(self, by: int) -> None:
        self.pages[self.session.station].step(by)

    def to_strip(self) -> None:
        """Put the cursor on the strip, where there is one."""
        if self.strip.line.isVisibleTo(self):
            self.strip.line.setFocus(Qt.FocusReason.OtherFocusReason)

    def fold(self) -> None:
        """Fold the rack away, or out again."""
        self._folded_by_hand = self.rack.isVisible()
        self.rack.setVisible(not self._folded_by_hand)

    def _make_room(self) -> None:
        """Fold the rack where the window is narrow for its text, unless a hand has decided."""
        narrow = self.width() / self.theme.scale < ROOM_FOR_RACK
        folded = narrow if self._folded_by_hand is None else self._folded_by_hand
        self.rack.setVisible(not folded)

    def room_above_strip(self) -> QRect:
        """Return the room that is laid over while keys go on to the strip."""
        return QRect(0, 0, self.whole.width(), self.whole.height() - self.strip.height())

    def stand_back(self) -> None:
        """Show what is read from two metres away, or the bench again."""
        if self.standback.toggle(self.room_above_strip()):
            self.to_strip()

    def settings(self) -> None:
        """Show the shop's settings in place of the bench; any station leads back."""
        self._bring(self.settings_page)
        self.way.say("Shop settings; Ctrl+1 leads back to the bench.", "note")
        self.settings_page.start()

    def look_for(self) -> None:
        """Put the cursor where a motor or a sum is looked for."""
        self.rack.show()
        self.rack.search.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Take a key that nothing with the cursor wanted."""
        if not taken(self, event):
            super().keyPressEvent(event)

    # --- papers and files -----------------------------------------------------------------------

    def wrote(self, words: str) -> None:
        """Say where a paper is, or why it was not written."""
        self.notices.say(words)
        self.way.say(words, "good" if words.startswith("Written") else "hold")

    def explain(self) -> None:
        """Say why the leads are believed to be what they are."""
        if not self.pages[self.session.station].explain():
            self.reading.toggle()

    def ask_for_file(self) -> None:
        """Say how a job comes in from another shop, the cursor where its path is typed."""
        self.way.say(
            "Type the path of a bundle (.ccjob) here, or drop the file on the window.", "note"
        )
        self.look_for()

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        """Take files."""
        if any(is_bundle(u.toLocalFile()) for u in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        """Take each bundle dropped into the shop."""
        for url in event.mimeData().urls():
            take_in(self.session, url.toLocalFile())
        event.acceptProposedAction()

    def _released(self) -> None:
        """When a job has just been signed, its sheet is made."""
        job = self.session.open
        if job is None:
            return
        if not job.judged.released:
            self._releasing = job.id
        elif self._releasing == job.id:
            self._releasing = ""
            write_job_sheet(self.session, self.wrote)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Keep the key sheet over the whole window."""
        if self.keys.isVisible():
            self.keys.setGeometry(self.whole.rect())
        self._make_room()
        super().resizeEvent(event)
        self.standback.setGeometry(self.room_above_strip())
        self.reading.fit()

    def closeEvent(self, event: QCloseEvent) -> None:
        """Go once everything is on disk; what was refused stays in sight."""
        if self.session.held:  # nobody said who: kept without
            self.session.named(self.session.who)
        if not self.leaving.may_go():
            event.ignore()
            return
        self.session.close()
        self.closed.emit()
        super().closeEvent(event)
