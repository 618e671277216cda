"""Says what the program says in the person's language.

Every text a person reads goes through :func:`tr`. Its English is the key; a catalogue in Qt's ``.ts`` format, shipped
in ``assets/words``, holds the other languages. The list of everything there is to say is ``docs/words.md``.
"""

from __future__ import annotations

from pathlib import Path
from xml.etree import ElementTree

from PyQt6.QtCore import QCoreApplication, QLocale, QObject, QTranslator

from ..core.phrases import Phrase

CONTEXT = "Brave Tessel"
FOLDER = Path(__file__).parent / "assets" / "words"


class Catalogue(QTranslator):
    """A catalogue read from a ``.ts`` file; what it does not hold stays in English."""

    def __init__(self, path: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.texts: dict[str, str] = {}
        for message in ElementTree.parse(path).getroot().iter("message"):
            text = message.findtext("translation") or ""
            if text:
                self.texts[message.findtext("source") or ""] = text

    def translate(self, context: str | None, text: str | None, note: str | None = None, n: int = -1) -> str:
        """The text in the catalogue's language; empty where it has none."""
        return self.texts.get(text or "", "") if context == CONTEXT else ""

    def isEmpty(self) -> bool:
        return not self.texts


def tr(pattern: str, /, **values: object) -> str:
    """A text in the person's language, with the values put in.

    Phrases of the core bring their own values; phrases among the values are said in the same language.
    """
    key = pattern
    if isinstance(pattern, Phrase):
        key, values = pattern.pattern, pattern.values
    said = QCoreApplication.translate(CONTEXT, key) or key
    if not values:
        return said
    return said.format(**{name: tr(value) if isinstance(value, Phrase) else value for name, value in values.items()})


def tr_count(count: int, one: str, many: str, /, **values: object) -> str:
    """A text about a number of things: ``one`` for exactly one, ``many`` for none or more; both may show ``{n}``."""
    return tr(one if count == 1 else many, n=count, **values)


def speak(application: QCoreApplication, locale: QLocale | None = None) -> Catalogue | None:
    """Take the catalogue of the desktop's language, if one is shipped; English needs none."""
    for name in (locale or QLocale()).uiLanguages():
        path = FOLDER / f"{name.replace('-', '_')}.ts"
        if name.partition("-")[0] == "en":
            return None
        if path.exists():
            catalogue = Catalogue(path, application)
            application.installTranslator(catalogue)
            return catalogue
    return None
