"""Everything the program says, gathered from its own source: ``docs/words.md`` to read, a catalogue to translate.

In the window every text stands in a call of ``tr`` (tests see to it). In the core, texts are plain keys: what is said
of an operation, an error, a command. They are told from other strings by being words: a space, or a capital first.
"""

from __future__ import annotations

import ast
import re
import sys
from collections.abc import Iterator
from pathlib import Path
from xml.etree import ElementTree

from ..core import registered
from ..core.buildup.hatches import HATCH_GROUNDS
from ..core.buildup.mixing import MODES
from ..core.buildup.where import MODES as RULE_MODES
from ..core.gather.roles import ROLES
from ..core.maps import TRAITS, MapKind
from ..core.operation import REGISTRY
from .gather import rig
from .library import catalogue
from .library import items as library

PACKAGE = Path(__file__).parents[1]
_AREAS = {
    "The window": ("ui",),
    "Operations, kinds, rules, checks and errors": ("core",),
    "Commands, library and deliveries": ("engine",),
    "Files": ("formats", "view3d"),
    "The command line": ("cli",),
}
_UNSAID = {"theme.py", "shots.py", "stock_pictures.py", "word_list.py"}
SAYING = {"tr", "tr_count", "say", "say_count"}
_SILENT = {
    # No person reads what is given to these.
    "add", "section", "task_key", "setdefault", "getenv", "sysconf", "TypeVar", "cast", "open", "encode", "decode",
    "setObjectName", "setStyleSheet", "replace_all", "warning", "debug", "info", "exception", "startswith", "endswith",
    "removesuffix", "removeprefix", "LookupError", "ValueError", "KeyError", "RuntimeError", "AssertionError",
    "TypeError", "ValidationError", "NotImplementedError", "compile", "environ", "QSettings", "Task", "digest",
    "Literal", "ElementTree", "iter", "find", "findall", "findtext", "glob", "rglob", "setProperty", "struct",
    "Setting", "RecipeWhat", "recipe", "tuple_of", "PictureHeader", "convert", "getattr", "setattr", "hasattr",
    "match", "fullmatch", "search", "split", "GltfMaterial", "PieceKind",
}  # fmt: skip
_SILENT_KEYWORDS = {"gesture", "mode", "group", "description_", "formats", "dtype", "runs", "colour", "recipe"}


def said(package: Path = PACKAGE) -> dict[str, list[str]]:
    """Every text a person can read, by area, each once, sorted as in a dictionary.

    Source: the modules of the package, parsed and not imported.
    """
    areas = {}
    for title, folders in _AREAS.items():
        texts = {
            text
            for folder in folders
            for path in sorted((package / folder).rglob("*.py"))
            if path.name not in _UNSAID
            for text in _texts(path, spoken=folder == "ui")
        }
        if "core" in folders:
            texts |= set(_declared())
        areas[title] = sorted(texts, key=lambda text: (text.strip(" ·,;.:“").casefold(), text))
    return areas


def _texts(path: Path, *, spoken: bool) -> Iterator[str]:
    """The texts of one module: those said by ``tr``, and outside the window all words that are shown."""
    tree = ast.parse(path.read_text("utf-8"))
    parents = {child: node for node in ast.walk(tree) for child in ast.iter_child_nodes(node)}
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and _name(node) in SAYING:
            for given in node.args[1:3] if _name(node).endswith("_count") else node.args[:1]:
                yield from _literals(given, node, parents)
        elif isinstance(node, ast.Constant) and _is_shown(node, parents) and not (spoken and _in_code(node, parents)):
            yield str(node.value)


def _declared() -> Iterator[str]:
    """What is made of declarations and stands nowhere as a text: names of operations, of their parameters, choices."""
    assert registered.MODULES
    for operation in REGISTRY.values():
        yield operation.label
        yield operation.summary
        yield from (name.replace("_", " ") for name in operation.inputs)
        for param in operation.params.values():
            yield from (param.label, param.help, *(param.options if param.kind == "choice" else ()))
    yield from (trait.label for trait in TRAITS.values())
    yield from (role.replace("_", " ").capitalize() for role in ROLES if role not in set(MapKind))
    for keys in (RULE_MODES, *MODES.values(), HATCH_GROUNDS, library.KINDS, catalogue.FAULTS, rig.FAULTS, rig.SAMPLES):
        yield from keys
    yield from (fault.capitalize() for fault in rig.FAULTS)


def _in_code(node: ast.AST, parents: dict[ast.AST, ast.AST]) -> bool:
    """Whether it stands in a function. Tables of a module are keys, said by ``tr`` where they are shown."""
    while node in parents:
        node = parents[node]
        if isinstance(node, ast.FunctionDef | ast.Lambda):
            return True
    return False


def _name(call: ast.Call) -> str:
    """What is called, without what it belongs to."""
    return call.func.attr if isinstance(call.func, ast.Attribute) else getattr(call.func, "id", "")


def _literals(given: ast.AST, call: ast.AST, parents: dict[ast.AST, ast.AST]) -> Iterator[str]:
    """Literal texts in an argument: written there, or given to the name that stands there in the same function."""
    for node in ast.walk(given):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and _has_words(node.value):
            inside = parents.get(node)
            if not isinstance(inside, ast.Compare | ast.Subscript):
                yield node.value
        elif isinstance(node, ast.Name):
            yield from _assigned(node.id, call, parents)


def _assigned(name: str, call: ast.AST, parents: dict[ast.AST, ast.AST]) -> Iterator[str]:
    scope = call
    while scope in parents and not isinstance(scope, ast.FunctionDef):
        scope = parents[scope]
    for node in ast.walk(scope):
        if isinstance(node, ast.Assign) and any(isinstance(to, ast.Name) and to.id == name for to in node.targets):
            for part in ast.walk(node.value):
                told = isinstance(part, ast.Constant) and isinstance(part.value, str) and _has_words(part.value)
                if told and not isinstance(parents.get(part), ast.Compare | ast.Subscript):
                    yield str(part.value)  # type: ignore[attr-defined]


def _has_words(text: str) -> bool:
    return bool(re.search(r"[A-Za-z]{2}", text))


def _is_shown(node: ast.Constant, parents: dict[ast.AST, ast.AST]) -> bool:
    """Whether a string of the core is words for people: not a docstring, a key, a format or a message to a log."""
    text = node.value
    if (
        not isinstance(text, str)
        or not _has_words(text)
        or "\0" in text
        or "[^" in text
        or text.startswith(("#", "<", "--", '{"'))
    ):
        return False
    if not (" " in text.strip() or text[0].isupper()) or re.fullmatch(r"[A-Z_0-9.]+|[A-Z][a-z]+[A-Z]\w*", text):
        return False
    at: ast.AST = node
    while at in parents:
        below, at = at, parents[at]
        shown = _shown_in(at, below, node, parents)
        if shown is not None:
            return shown
    return True


def _shown_in(at: ast.AST, below: ast.AST, node: ast.AST, parents: dict[ast.AST, ast.AST]) -> bool | None:
    """What a node above a text says of it: shown, not shown, or nothing."""
    if isinstance(at, ast.arg):
        return True  # what is declared of a parameter stands in its annotation
    if isinstance(at, ast.Expr):
        return below is not node  # alone it is a docstring
    if isinstance(at, ast.Subscript) and not isinstance(parents.get(at), ast.arg | ast.AnnAssign):
        return False
    if isinstance(at, ast.AnnAssign) and below is at.annotation:
        return isinstance(at.annotation, ast.Subscript)
    silent = (
        isinstance(at, ast.JoinedStr | ast.Compare | ast.arguments | ast.Assert)
        or (isinstance(at, ast.keyword) and at.arg in _SILENT_KEYWORDS)
        or (isinstance(at, ast.Call) and below is not at.func and _name(at) in _SILENT)
    )
    return False if silent else None


def words_text(package: Path = PACKAGE) -> str:
    """The list as Markdown: one text a line, by area."""
    areas = said(package)
    count = sum(map(len, areas.values()))
    lines = [
        "# Words",
        "",
        f"Everything the program says to people: {count} texts, made from the source by `./dev docs`. Names in braces",
        "are values. Read it from end to end now and then, asking of each: is it plain, is it the trade's word, is it",
        "ours? The long texts of the documents are read where they stand.",
        "",
    ]
    for title, texts in areas.items():
        lines += [f"## {title}", "", *(f"- {_shown(text)}" for text in texts), ""]
    return "\n".join(lines)


def _shown(text: str) -> str:
    """A text on one line, safe within Markdown."""
    plain = text.replace("\n", " ⏎ ").replace("*", "\\*").replace("_", "\\_").replace("<", "&lt;")
    return plain if plain == plain.strip() else f"“{plain}”"


def catalogue_text(package: Path = PACKAGE) -> str:
    """An empty catalogue in Qt's ``.ts`` format (Qt Linguist), all texts under one context, for translators."""
    root = ElementTree.Element("TS", version="2.1", sourcelanguage="en")
    context = ElementTree.SubElement(root, "context")
    ElementTree.SubElement(context, "name").text = "Brave Tessel"
    for text in sorted({text for texts in said(package).values() for text in texts}):
        message = ElementTree.SubElement(context, "message")
        ElementTree.SubElement(message, "source").text = text
        ElementTree.SubElement(message, "translation", type="unfinished")
    ElementTree.indent(root, " ")
    return f'<?xml version="1.0" encoding="utf-8"?>\n<!DOCTYPE TS>\n{ElementTree.tostring(root, "unicode")}\n'


if __name__ == "__main__":
    folder = Path(sys.argv[1])
    (folder / "words.md").write_text(words_text(), "utf-8")
    template = PACKAGE / "ui" / "assets" / "words" / "template.ts"
    template.parent.mkdir(exist_ok=True)
    template.write_text(catalogue_text(), "utf-8")
