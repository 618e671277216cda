"""What the program says: every text of the window is marked, and the lists of them are up to date."""

from __future__ import annotations

import ast
import re
from pathlib import Path

import pytest
from PyQt6.QtCore import QCoreApplication, QLocale
from PyQt6.QtGui import QAction
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QComboBox, QLineEdit, QWidget

from brave_tessel.core.phrases import Phrase, say, say_count
from brave_tessel.core.relief.pictures import VIEWS
from brave_tessel.engine import word_list
from brave_tessel.ui import words
from brave_tessel.ui.stages.build.stage import EXTENTS
from brave_tessel.ui.stages.place.hand import KINDS
from brave_tessel.ui.stages.place.stage import MOVES
from brave_tessel.ui.view_state import STAGES
from brave_tessel.ui.words import CONTEXT, Catalogue, speak, tr, tr_count

DOCS = Path(__file__).parents[2] / "docs"


@pytest.fixture(scope="module")
def texts():
    return {text for area in word_list.said().values() for text in area}


def _catalogue(path: Path, said: dict[str, str]) -> Path:
    """A catalogue as Qt's tools write it."""
    body = "".join(
        f"<message><source>{_xml(source)}</source><translation>{_xml(text)}</translation></message>"
        for source, text in said.items()
    )
    path.write_text(f'<?xml version="1.0"?><TS version="2.1"><context><name>{CONTEXT}</name>{body}</context></TS>')
    return path


def _xml(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;")


@pytest.fixture
def other_language(qapp, tmp_path, texts):
    """The window in a language in which every text stands in brackets."""
    made = Catalogue(_catalogue(tmp_path / "xx.ts", {text: f"⟦{text}⟧" for text in texts}), qapp)
    QCoreApplication.installTranslator(made)
    yield made
    QCoreApplication.removeTranslator(made)


def test_the_list_of_words_is_up_to_date():
    assert (DOCS / "words.md").read_text("utf-8") == word_list.words_text(), "run ./dev docs"


def test_the_catalogue_to_translate_is_up_to_date():
    assert (words.FOLDER / "template.ts").read_text("utf-8") == word_list.catalogue_text(), "run ./dev docs"


def test_qt_reads_the_catalogue_to_translate(tmp_path):
    """PyQt's own reader of ``.ts`` files takes it, with all its messages in one context."""
    lupdate = pytest.importorskip("PyQt6.lupdate.translation_file")
    read = lupdate.TranslationFile(str(words.FOLDER / "template.ts"), no_obsolete=False, no_summary=True, verbose=False)
    assert list(read._contexts) == [CONTEXT]
    assert len(read._contexts[CONTEXT]) > 1500


KEYS = {*STAGES, *VIEWS, *EXTENTS, *MOVES, *KINDS, "write sheet", "Move the rule"}
"""Words of tables that are said where they are shown, and names of what is asked of a workroom."""


_PLAIN, _JOINED = r"[A-Za-z]{2}.* [a-z]", r"[A-Za-z]{2}.* [a-z]|^,? [a-z]{3,}$"


def _loose(path: Path) -> list[str]:
    """Texts in functions of a module of the window that do not go through ``tr``."""
    tree = ast.parse(path.read_text("utf-8"))
    parents = {child: node for node in ast.walk(tree) for child in ast.iter_child_nodes(node)}

    def ways(node):
        while node in parents:
            yield node, parents[node]
            node = parents[node]

    found = []
    for node in ast.walk(tree):
        if not (isinstance(node, ast.Constant) and isinstance(node.value, str)):
            continue
        if (
            not re.search(_JOINED if isinstance(parents[node], ast.JoinedStr) else _PLAIN, node.value)
            or node.value in KEYS
            or isinstance(parents[node], ast.Expr)
        ):
            continue
        above = list(ways(node))
        if not any(isinstance(parent, ast.FunctionDef) for _, parent in above):
            continue
        calls = {
            word_list._name(parent)
            for _, parent in above
            if isinstance(parent, ast.Call)
            and not (isinstance(parent.func, ast.Attribute) and parent.func.attr == "say")
        }
        if calls & (word_list.SAYING | {"setStyleSheet", "exception", "warning", "debug", "info", "split"}):
            continue
        if any(isinstance(parent, ast.Assign) for _, parent in above) and "tr(" in path.read_text("utf-8"):
            continue  # given a name first: the list finds it where the name is said
        found.append(f"{path.name}:{node.lineno} {node.value!r}")
    return found


def test_every_sentence_in_the_window_goes_through_tr():
    ui = Path(words.__file__).parent
    loose = [text for path in ui.rglob("*.py") if path.name not in word_list._UNSAID for text in _loose(path)]
    assert loose == []


def _shown(window) -> set[str]:
    """Every text of the widgets and actions of a window."""
    found: set[str] = set()
    for widget in window.findChildren(QWidget):
        found |= {widget.toolTip(), widget.accessibleName()}
        if isinstance(widget, QLineEdit):
            found.add(widget.placeholderText())
        elif isinstance(widget, QComboBox):
            found |= {widget.itemText(index) for index in range(widget.count())}
        elif callable(getattr(widget, "text", None)):
            found.add(widget.text())
    return found | {action.text() for action in window.findChildren(QAction)}


def _own(job) -> list[str]:
    """Names that people gave: they are said as they are."""
    scene = job.scene
    names = [job.name, *(one.name for one in (*scene.parts, *scene.levels, *scene.datums, *scene.eyes))]
    names += [part.model.file_name for part in scene.parts if part.model]
    for source in job.sources:
        names += [source.name, source.file_name, *(picture.file_name for picture in source.pictures)]
        names += [kind.name for kind in source.scatter.kinds] if source.scatter else []
    for surface in job.surfaces:
        names.append(surface.name)
        waiting = list(surface.layers)
        while waiting:
            layer = waiting.pop()
            names.append(layer.name)
            waiting += getattr(layer.what, "layers", ()) or ()
            names += [kind.name for kind in layer.what.scatter.kinds] if hasattr(layer.what, "scatter") else []
            recipe = layer.what.made_of_recipe()
            names += [step.name for step in recipe.steps] if recipe else []
    return sorted(filter(None, names), key=len, reverse=True)


def test_the_whole_window_speaks_another_language(other_language, demo_window, settled):
    """In every stage and on every layer's card, nothing but names, numbers and units stays as it was."""
    desk = demo_window.desk
    found: set[str] = set()
    for stage in ("Gather", "Repeat", "Build", "Place", "Hand over"):
        desk.go(stage)
        settled(demo_window)
        found |= _shown(demo_window)
    desk.go("Build")
    for surface in desk.job.surfaces:
        for layer in surface.layers:
            desk.selection.choose(surface=surface.id, layer=layer.id)
            QTest.qWait(5)
            found |= _shown(demo_window)
    demo_window.build_stage.open_recipe(True)
    settled(demo_window)
    found |= _shown(demo_window)
    own = _own(desk.job)
    kept = set()
    for text in found:
        rest = re.sub(r"⟦.*⟧", "", text, flags=re.DOTALL)
        for name in own:
            rest = rest.replace(name, "")
        if re.search(r"[A-Za-z]{4}", rest) and not rest.startswith(("IBM Plex", "DejaVu")) and "font" not in rest:
            kept.add(text)
    assert kept <= UNITS | SYSTEM_FONTS(), sorted(kept - UNITS)


UNITS = {"stops"}


def SYSTEM_FONTS() -> set[str]:
    from brave_tessel.formats.lettering import fonts

    return set(fonts())


def test_a_phrase_is_english_and_remembers_its_pattern():
    told = say("{n} layers of {name}", n=3, name="wall")
    assert told == "3 layers of wall"
    assert (told.pattern, told.values) == ("{n} layers of {name}", {"n": 3, "name": "wall"})
    assert say("{braces} stay") == "{braces} stay"
    assert say(told) == told
    assert say(told).pattern == told.pattern
    assert say_count(1, "{n} layer", "{n} layers") == "1 layer"
    assert say_count(0, "{n} layer", "{n} layers") == "0 layers"


def test_a_catalogue_says_phrases_and_what_is_in_them(qapp, tmp_path):
    said = {
        "{parameter} cannot be {of}.": "{of} geht nicht als {parameter}.",
        "depth": "Tiefe",
        "{n} layer": "{n} Schicht",
        "{n} layers": "{n} Schichten",
    }
    catalogue = Catalogue(_catalogue(tmp_path / "de.ts", said), qapp)
    QCoreApplication.installTranslator(catalogue)
    try:
        assert tr(say("{parameter} cannot be {of}.", parameter=say("depth"), of=-3)) == "-3 geht nicht als Tiefe."
        assert tr("depth") == "Tiefe"
        assert tr("not in it") == "not in it"
        assert tr_count(1, "{n} layer", "{n} layers") == "1 Schicht"
        assert tr_count(4, "{n} layer", "{n} layers") == "4 Schichten"
    finally:
        QCoreApplication.removeTranslator(catalogue)
    assert tr("depth") == "depth"


def test_the_desktops_language_is_taken_where_a_catalogue_ships(qapp, tmp_path, monkeypatch):
    monkeypatch.setattr(words, "FOLDER", tmp_path)
    _catalogue(tmp_path / "de.ts", {"Save": "Sichern"})
    assert speak(qapp, QLocale("en_GB")) is None
    assert speak(qapp, QLocale("fr_FR")) is None
    taken = speak(qapp, QLocale("de_AT"))
    try:
        assert tr("Save") == "Sichern"
    finally:
        QCoreApplication.removeTranslator(taken)


def test_errors_are_phrases():
    from brave_tessel.core.errors import OutOfRangeError
    from brave_tessel.engine.wording import sentence

    assert isinstance(sentence(OutOfRangeError("depth", value=3, allowed="0 to 1")), Phrase)
