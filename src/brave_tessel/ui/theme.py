"""Every colour, size and font of the window; nothing else names one."""

from __future__ import annotations

import tempfile
from dataclasses import dataclass
from functools import cache, lru_cache
from pathlib import Path

from PyQt6.QtCore import QByteArray, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QFontDatabase, QFontInfo, QGuiApplication, QIcon, QPainter, QPalette, QPixmap
from PyQt6.QtSvg import QSvgRenderer
from PyQt6.QtWidgets import QApplication

ASSETS = Path(__file__).parent / "assets"
SANS, MONO = "IBM Plex Sans", "IBM Plex Mono"
# Each shipped weight is a family of its own.
_WEIGHTS = {500: " Medium", 600: " SemiBold"}


@dataclass(frozen=True, slots=True)
class Tokens:
    """One set of colours."""

    chalk: str
    panel: str
    white: str
    line: str
    ink: str
    ink_2: str
    ink_3: str
    board: str
    verdigris: str
    wash: str
    chalk_line: str
    ochre: str
    oxide: str
    on_ink: str
    steps: tuple[str, ...]


LIGHT = Tokens(
    "#E4E5E3",
    "#F3F4F2",
    "#FFFFFF",
    "#C6C9C6",
    "#20262A",
    "#5D666B",
    "#747C80",
    "#777777",
    "#1B7468",
    "#D3E6E1",
    "#2B68B0",
    "#8F5A0C",
    "#A63F2C",
    "#FFFFFF",
    ("#7D4686", "#6B7A1E", "#8A5A32", "#4F5F6B", "#A2487A", "#46764A", "#6A5AA8", "#7A6A46"),
)
LAMP = Tokens(
    "#2A2E30",
    "#24282A",
    "#1B1F21",
    "#434A4D",
    "#E7E9E6",
    "#A9B1B3",
    "#8B9497",
    "#777777",
    "#5CC0AF",
    "#25443F",
    "#7FB2EE",
    "#DDA04A",
    "#E88A75",
    "#1B1F21",
    ("#C693CF", "#B4C466", "#CFA07A", "#A3B4C0", "#E08DB6", "#8DC092", "#B0A3E6", "#C4B48E"),
)


class _Current:
    tokens = LIGHT
    scale = 1.0


def tokens() -> Tokens:
    """The set in use."""
    return _Current.tokens


def colour(name: str) -> QColor:
    """A token as a colour."""
    return QColor(getattr(_Current.tokens, name))


def step_mark(index: int) -> QColor:
    """The colour of a step of a recipe, by its place: none that means something elsewhere. Its number says the same."""
    marks = _Current.tokens.steps
    return QColor(marks[index % len(marks)])


def px(size: float) -> int:
    """A size in the desktop's font scale."""
    return round(size * _Current.scale)


def font(size: float = 12, *, mono: bool = False, weight: int = 400) -> QFont:
    """A shipped font at ``size`` px."""
    made = QFont((MONO if mono else SANS) + _WEIGHTS.get(weight, ""))
    made.setPixelSize(px(size))
    return made


def desktop_scale() -> float:
    """The desktop's font size against the usual one, between 1 and 2."""
    size = QFontInfo(QGuiApplication.font()).pixelSize()
    return min(2.0, max(1.0, round(size / 13 * 20) / 20))


def prefers_lamp() -> bool:
    """Whether the desktop asks for dark windows."""
    hints = QGuiApplication.styleHints()
    return hints is not None and hints.colorScheme() == Qt.ColorScheme.Dark


def apply(app: QApplication, *, lamp: bool, scale: float) -> None:
    """Give the application its face; nothing is done where it has it already."""
    tokens = LAMP if lamp else LIGHT
    if app.property("face") == (lamp, scale) and _Current.tokens is tokens and _Current.scale == scale:
        return
    if app.property("face") is None:
        for file in sorted((ASSETS / "fonts").glob("*.woff")):
            QFontDatabase.addApplicationFont(str(file))
    app.setProperty("face", (lamp, scale))
    _Current.tokens = tokens
    _Current.scale = scale
    tinted.cache_clear()
    app.setStyle("Fusion")
    app.setFont(font(12))
    app.setPalette(_palette())
    app.setStyleSheet(_style())


def _palette() -> QPalette:
    palette = QPalette()
    role = QPalette.ColorRole
    for where, name in (
        (role.Window, "panel"),
        (role.WindowText, "ink"),
        (role.Base, "white"),
        (role.AlternateBase, "panel"),
        (role.Text, "ink"),
        (role.Button, "panel"),
        (role.ButtonText, "ink"),
        (role.Highlight, "verdigris"),
        (role.HighlightedText, "on_ink"),
        (role.ToolTipBase, "white"),
        (role.ToolTipText, "ink"),
        (role.PlaceholderText, "ink_3"),
        (role.Mid, "line"),
        (role.Dark, "line"),
        (role.Light, "white"),
    ):
        palette.setColor(where, colour(name))
    return palette


def _style() -> str:
    t = _Current.tokens
    return f"""
    QWidget {{ font-family: "{SANS}"; font-size: {px(12)}px; color: {t.ink}; }}
    QMainWindow, QWidget#panel, QScrollArea, QWidget#card {{ background: {t.panel}; }}
    QScrollArea {{ border: none; }}
    QMenuBar {{ background: {t.panel}; border-bottom: 1px solid {t.line}; padding: 1px {px(6)}px; }}
    QMenuBar::item {{ padding: {px(4)}px {px(8)}px; background: transparent; border-radius: 3px; }}
    QMenuBar::item:selected, QMenu::item:selected {{ background: {t.wash}; color: {t.ink}; }}
    QMenu {{ background: {t.white}; border: 1px solid {t.line}; padding: {px(4)}px 0; }}
    QMenu::item {{ padding: {px(5)}px {px(24)}px {px(5)}px {px(16)}px; }}
    QMenu::icon {{ padding-left: {px(10)}px; }}
    QMenu::item:disabled {{ color: {t.ink_3}; }}
    QMenu::separator {{ height: 1px; background: {t.line}; margin: {px(4)}px 0; }}
    QToolTip {{ background: {t.white}; color: {t.ink}; border: 1px solid {t.line}; padding: {px(4)}px; }}
    QLabel#title {{ font-family: "{SANS} SemiBold"; font-size: {px(15)}px; }}
    QLabel#note {{ font-size: {px(11)}px; color: {t.ink_2}; }}
    QLabel#section {{ font-family: "{SANS} SemiBold"; }}
    QLabel#fault {{ color: {t.oxide}; }}
    QLabel#caution {{ color: {t.ochre}; }}
    QLabel#mono, QLineEdit#mono {{ font-family: "{MONO}"; }}
    QLineEdit, QComboBox {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px;
        padding: {px(2)}px {px(6)}px; min-height: {px(18)}px; selection-background-color: {t.verdigris}; }}
    QLineEdit:focus, QComboBox:focus {{ border-color: {t.verdigris}; }}
    QLineEdit[wrong="true"] {{ border-color: {t.oxide}; }}
    QComboBox {{ padding-right: {px(1)}px; }}
    QComboBox::drop-down {{ border: none; width: {px(18)}px; }}
    QComboBox::down-arrow {{ image: url({_arrow()}); width: {px(12)}px; height: {px(12)}px; }}
    QComboBox {{ combobox-popup: 0; }}
    QComboBox QAbstractItemView {{ background: {t.white}; border: 1px solid {t.line}; padding: {px(3)}px 0;
        outline: 0; selection-background-color: {t.wash}; selection-color: {t.ink}; }}
    QComboBox QAbstractItemView::item {{ padding: {px(3)}px {px(8)}px; min-height: {px(17)}px; }}
    QComboBox QAbstractItemView::item:selected {{ background: {t.wash}; color: {t.ink}; }}
    QPushButton, QToolButton {{ background: {t.white}; border: 1px solid {t.line}; border-radius: 3px;
        padding: {px(4)}px {px(10)}px; min-height: {px(16)}px; }}
    QToolButton {{ padding: {px(3)}px {px(6)}px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {t.verdigris}; }}
    QPushButton:focus, QToolButton:focus {{ border-color: {t.verdigris}; outline: none; }}
    QPushButton:disabled, QToolButton:disabled {{ color: {t.ink_3}; }}
    QPushButton:checked, QToolButton:checked {{ background: {t.wash}; border-color: {t.verdigris}; }}
    QPushButton#main {{ background: {t.ink}; color: {t.panel}; border-color: {t.ink}; padding: {px(5)}px {px(12)}px; }}
    QPushButton#main:hover {{ background: {t.verdigris}; border-color: {t.verdigris}; color: {t.on_ink}; }}
    QPushButton#main:disabled {{ background: {t.line}; border-color: {t.line}; color: {t.ink_3}; }}
    QPushButton#flat, QToolButton#flat {{ background: transparent; border: 1px solid transparent; }}
    QPushButton#flat:hover, QToolButton#flat:hover {{ border-color: {t.line}; }}
    QPushButton#flat:focus, QToolButton#flat:focus {{ border-color: {t.verdigris}; }}
    QPushButton#badge {{ background: transparent; border: 1px solid {t.line}; border-radius: {px(8)}px;
    padding: 0 {px(8)}px; min-height: {px(16)}px; max-height: {px(16)}px; font-size: {px(11)}px; color: {t.ink_2}; }}
    QPushButton#badge:hover, QPushButton#badge:focus {{ border-color: {t.verdigris}; }}
    QPushButton#badge:checked {{ background: {t.verdigris}; border-color: {t.verdigris}; color: {t.on_ink}; }}
    QPushButton#link {{ background: transparent; border: none; color: {t.verdigris}; padding: 0; text-align: left; }}
    QPushButton#link:hover, QPushButton#link:focus {{ text-decoration: underline; }}
    QDialogButtonBox {{ dialogbuttonbox-buttons-have-icons: 0; }}
    QMessageBox {{ background: {t.panel}; }}
    QMessageBox QLabel {{ padding: {px(8)}px {px(6)}px {px(8)}px 0; min-height: {px(30)}px; }}
    QMessageBox QLabel#qt_msgboxex_icon_label {{ min-width: 0; max-width: {px(2)}px; padding: 0; }}
    QMessageBox QPushButton {{ min-width: {px(64)}px; }}
    QListWidget {{ background: {t.panel}; border: none; outline: none; }}
    QListWidget::item {{ border: none; }}
    QSplitter::handle {{ background: {t.line}; }}
    QScrollBar:vertical {{ background: transparent; width: {px(9)}px; margin: 0; }}
    QScrollBar::handle:vertical {{ background: {t.line}; border-radius: 3px; min-height: {px(24)}px; margin: 1px 2px; }}
    QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page {{ background: none;
    height: 0; }}
    QScrollBar:horizontal {{ background: transparent; height: {px(9)}px; }}
    QScrollBar::handle:horizontal {{ background: {t.line}; border-radius: 3px; margin: 2px 1px; }}
    QProgressBar {{ background: {t.line}; border: none; border-radius: 2px; max-height: {px(4)}px; min-height:
    {px(4)}px; }}
    QProgressBar::chunk {{ background: {t.verdigris}; border-radius: 2px; }}
    QStatusBar, QWidget#status {{ background: {t.panel}; border-top: 1px solid {t.line}; }}
    """


@cache
def _own_folder() -> tempfile.TemporaryDirectory[str]:
    """A folder of this process alone, gone with it: nobody else can put something there."""
    return tempfile.TemporaryDirectory(prefix="brave-tessel-")


def _arrow() -> str:
    """A tinted arrow as a file, as style sheets want it."""
    target = Path(_own_folder().name) / f"arrow-{tokens().ink_2[1:]}.svg"
    svg = (ASSETS / "icons" / "chevron-down.svg").read_text(encoding="utf-8")
    target.write_text(svg.replace("currentColor", tokens().ink_2), encoding="utf-8")
    return target.as_posix()


def stock_icon(name: str) -> QIcon:
    """The small picture of a stock recipe; empty where it has none."""
    path = ASSETS / "stock" / f"{name.lower().replace(' ', '-')}.png"
    return QIcon(str(path)) if path.is_file() else QIcon()


@lru_cache(maxsize=256)
def tinted(name: str, token: str = "ink", size: int = 16) -> QIcon:
    """A shipped outline icon in a token's colour."""
    svg = (
        (ASSETS / "icons" / f"{name}.svg").read_text(encoding="utf-8").replace("currentColor", getattr(tokens(), token))
    )
    svg = svg.replace('stroke-width="2"', 'stroke-width="1.6"')
    side = px(size) * 2
    pixmap = QPixmap(side, side)
    pixmap.fill(Qt.GlobalColor.transparent)
    painter = QPainter(pixmap)
    QSvgRenderer(QByteArray(svg.encode())).render(painter, QRectF(0, 0, side, side))
    painter.end()
    pixmap.setDevicePixelRatio(2)
    return QIcon(pixmap)
