"""The handbook in the window: the page of what is open, a search over all of them."""

import re

from PySide6.QtCore import Qt, QUrl, Signal
from PySide6.QtGui import QKeyEvent, QResizeEvent, QTextCursor, QTextDocument
from PySide6.QtWidgets import (
    QAbstractScrollArea,
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from careful_coil.desk.alive import Alive
from careful_coil.desk.handbook_page import HandbookPage
from careful_coil.desk.label import Label
from careful_coil.desk.painted import BAR
from careful_coil.desk.said import said
from careful_coil.desk.theme import Theme
from careful_coil.drawing.why import LIVE
from careful_coil.handbook import FIRST, Hit, heading_of, page_of, search, text_of

SCROLLS = {
    Qt.Key.Key_PageDown: 1.0,
    Qt.Key.Key_PageUp: -1.0,
    Qt.Key.Key_Down: 0.15,
    Qt.Key.Key_Up: -0.15,
}
TYPED = re.compile(r"(`[^`]*`|\]\([^)]*\))")  # what is typed as it is, and where links lead
KEYS = "F1 or Esc: back to the bench. Type to search, Enter opens the first. Page keys scroll."


class Words(QLineEdit):
    """The cell one searches in; its page keys scroll the page."""

    scrolled = Signal(float)
    left = Signal()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Scroll, leave, or type."""
        key = Qt.Key(event.key())
        if key in SCROLLS:
            self.scrolled.emit(SCROLLS[key])
        elif key == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


class Handbook(QFrame):
    """The page, over the bench."""

    left = Signal()

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.setObjectName("handbook")
        self.page, self.heading = FIRST, ""
        self.hits: list[Hit] = []
        self.title = Label("Handbook")
        self.words = Words()
        self.words.setAccessibleName("Search the handbook")
        self.words.setPlaceholderText("search the handbook")
        self.browser = HandbookPage(theme)
        self.browser.setOpenLinks(False)
        self.browser.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.browser.setAccessibleName("Handbook page")
        self.foot = Label(KEYS)
        self.foot.setObjectName("label")
        head = QHBoxLayout()
        head.addWidget(self.title)
        head.addStretch()
        head.addWidget(self.words)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 10, 20, 8)
        column.addLayout(head)
        self._alive: Alive | None = None
        laid = QWidget()
        self._column = QVBoxLayout(laid)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.addWidget(self.browser, 1)
        self._scroller = QScrollArea()  # page and drawing go past together where they have no room
        self._scroller.setWidgetResizable(True)
        self._scroller.setFrameShape(QFrame.Shape.NoFrame)
        self._scroller.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._scroller.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._scroller.setWidget(laid)
        column.addWidget(self._scroller, 1)
        column.addWidget(self.foot)
        self.words.textChanged.connect(self._search)
        self.words.returnPressed.connect(self._open_first)
        self.words.scrolled.connect(self._scroll)
        self.words.left.connect(self.left)
        self.browser.anchorClicked.connect(self._follow)
        self.set_theme(theme)

    def set_theme(self, theme: Theme) -> None:
        """Take another theme."""
        self.theme = self.browser.theme = theme
        surface, ink = theme.colour("surface").name(), theme.colour("ink").name()
        self.setStyleSheet(
            f"{theme.sheet()} #handbook {{ background: {theme.colour('ground').name()}; }}"
            f" QTextBrowser {{ background: {surface}; color: {ink};"
            f" border: 0; padding: {theme.px(14)}px; }}"
        )
        self.title.setFont(theme.font(20, bold=True))
        self.words.setFixedWidth(theme.px(280))
        self.browser.document().setDefaultFont(theme.font(15))
        if self.isVisible() and self.alive is not None:
            self.alive.set_theme(theme)

    def open_at(self, station: str, title: str) -> None:
        """Open the page of a station at the heading of its part."""
        page = page_of(station)
        self.show_page(page, heading_of(page, title))
        self.words.setFocus(Qt.FocusReason.OtherFocusReason)

    def show_page(self, page: str, heading: str = "") -> None:
        """Show a page from a heading on, from its top where none is named."""
        self.words.blockSignals(True)
        self.words.clear()
        self.words.blockSignals(False)
        self.page, self.heading = page, heading or heading_of(page, "")
        self._bring_alive(page)
        self._show(text_of(page))
        block = self.browser.document().begin()
        while block.isValid():
            if block.blockFormat().headingLevel() and block.text().strip() == said(self.heading):
                top = self.browser.document().documentLayout().blockBoundingRect(block).top()
                self.browser.verticalScrollBar().setValue(round(top))
                return
            block = block.next()

    def show_words(self, text: str) -> None:
        """Show a page of words with where they are spoken of."""
        self._bring_alive("")
        self._show(text)
        self.words.setFocus(Qt.FocusReason.OtherFocusReason)

    @property
    def alive(self) -> Alive | None:
        """Return the drawing of the open page that follows a slider, None where it has none."""
        return self._alive

    def _bring_alive(self, page: str) -> None:
        if self._alive is not None:
            self._alive.hide()
            self._alive.deleteLater()
            self._alive = None
        if page in LIVE:
            self._alive = Alive(self.theme, LIVE[page])
            self._column.addWidget(self._alive)

    def _show(self, text: str) -> None:
        words = "".join(
            piece if k % 2 else said(piece) for k, piece in enumerate(TYPED.split(text))
        )
        self.browser.document().setMarkdown(
            words, QTextDocument.MarkdownFeature.MarkdownDialectGitHub
        )
        self._ink_links()
        self.browser.moveCursor(QTextCursor.MoveOperation.Start)
        self._fit_page()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Let a page with a drawing be as high as it is long."""
        super().resizeEvent(event)
        self._fit_page()

    def _fit_page(self) -> None:
        """Show all of a page that has a drawing below it: they scroll together; any other scrolls by itself."""
        if self._alive is None:
            self.browser.setMinimumHeight(0)
            return
        pad = 2 * self.theme.px(14)
        long = self.browser.document().clone()
        long.setTextWidth(max(self.browser.width() - pad - BAR, 1))
        self.browser.setMinimumHeight(round(long.size().height()) + pad + 4)

    def _ink_links(self) -> None:
        """Write links in ink: Qt's own blue is not seen in the dim theme."""
        document = self.browser.document()
        cursor, block = QTextCursor(document), document.begin()
        while block.isValid():
            runs = block.begin()
            while not runs.atEnd():
                run = runs.fragment()
                if run.charFormat().isAnchor():
                    ink = run.charFormat()
                    ink.setForeground(self.theme.colour("ink"))
                    cursor.setPosition(run.position())
                    cursor.setPosition(
                        run.position() + run.length(), QTextCursor.MoveMode.KeepAnchor
                    )
                    cursor.setCharFormat(ink)
                runs += 1
            block = block.next()

    def _search(self, words: str) -> None:
        """Show where the words stand."""
        self.hits = search(words)
        self._bring_alive("")
        if not words.strip():
            self.show_page(self.page, self.heading)
            return
        lines = [f"# {len(self.hits) or 'No'} place{'' if len(self.hits) == 1 else 's'}"]
        for k, hit in enumerate(self.hits):
            lines.append(
                f"**[{hit.heading}](hit:{k})** · {hit.page.removesuffix('.md')}  \n{hit.line}"
            )
        if not self.hits:
            lines.append("Try fewer letters: *bond*, *curve*, *sleeve*, *release*.")
        self._show("\n\n".join(lines))

    def _open_first(self) -> None:
        if self.hits and self.words.text().strip():
            self.show_page(self.hits[0].page, self.hits[0].heading)

    def _follow(self, url: QUrl) -> None:
        """Open another page, or the place that a search found."""
        if url.scheme() == "hit":
            hit = self.hits[int(url.path())]
            self.show_page(hit.page, hit.heading)
            return
        name = url.fileName()
        try:
            text_of(name)
        except KeyError:
            self.foot.setText(
                f"{name or url.toString()} lies in the program's source, not in the handbook."
            )
            return
        self.show_page(name, url.fragment().replace("-", " "))

    def _scroll(self, share: float) -> None:
        at: QAbstractScrollArea = self.browser if self._alive is None else self._scroller
        bar = at.verticalScrollBar()
        bar.setValue(bar.value() + round(share * at.viewport().height()))
