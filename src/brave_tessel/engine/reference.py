"""The written reference, made from the declarations: ``docs/operations.md`` and ``docs/job.schema.json``."""

from __future__ import annotations

import json
import re
import sys
from itertools import groupby
from pathlib import Path
from typing import Any

import msgspec

from ..core import registered
from ..core.buildup.kind import KINDS
from ..core.job.document import Job
from ..core.job.layers import What
from ..core.operation import REGISTRY, Operation, Param, shown_option
from ..core.quantity import format_number

FAMILIES = {
    "noise": "Noise",
    "marks": "Marks",
    "pattern": "Pattern",
    "piece": "Piece",
    "adjust": "Adjust",
    "blur": "Blur and sharpen",
    "move": "Move",
    "form": "Form",
    "combine": "Combine",
    "colour": "Colour",
    "relief": "Relief",
    "source": "Source",
    "gather": "Gather",
    "mend": "Ways to make a repeat",
    "touch": "Touch-up brushes",
    "breakup": "Ways to break it",
    "shape": "Made pieces",
    "scatter": "Scatter",
    "estimate": "Estimates from a picture",
    "where": "Where-rules",
    "rule": "Shape of a rule",
    "lay": "Laying a layer in its sheet",
    "look": "Look of a layer",
    "tone": "Tone match",
    "seat": "Seat",
    "brush": "The brush",
    "decal": "Decals",
    "water": "Standing water",
    "stamp": "Stamps of runs",
    "inscription": "Inscriptions",
    "laying": "Layings",
}


def operations_text() -> str:
    """Every operation with its parameters, as Markdown."""
    assert registered.MODULES
    lines = ["# Operations", "", "What every operation does and takes. Lengths are in mm, angles in degrees.", ""]
    titles = {
        **FAMILIES,
        **{op.family: op.family.capitalize() for op in REGISTRY.values() if op.family not in FAMILIES},
    }
    ordered = sorted(REGISTRY.values(), key=lambda op: list(titles).index(op.family))
    for family, operations in groupby(ordered, key=lambda op: op.family):
        lines += [f"## {titles[family]}", ""]
        for operation in operations:
            lines += _operation(operation)
    return "\n".join(lines).rstrip() + "\n"


def _operation(operation: Operation) -> list[str]:
    made_from = ", ".join(f"{name.replace('_', ' ')} ({kind})" for name, kind in operation.inputs.items())
    lines = [f"### {operation.label}", "", f"Made from: {made_from}." if made_from else "Made from nothing.", ""]
    lines += [_plain(operation.help), ""]
    if operation.params:
        lines += ["| parameter | default | usual | allowed | meaning |", "|---|---|---|---|---|"]
        lines += [_row(param) for param in operation.params.values()] + [""]
    return lines


def _plain(text: str) -> str:
    """Help as people read it: without the marks of code."""
    return re.sub(r"``([^`]*)``", lambda found: found[1].replace("_", " "), text.strip()).replace("_", " ")


_OTHER = {
    "colour": "#RRGGBB",
    "toggle": "yes or no",
    "stops": "#RRGGBB, with commas",
    "source": "a source",
    "words": "a text",
    "sizes": "sizes in mm, with commas",
    "font": "a font's name",
    "layer": "a layer beneath",
    "tip": "a source or a recipe",
}


def _row(param: Param) -> str:
    if param.kind in set(_OTHER) | {"choice"}:
        usual = allowed = ", ".join(map(shown_option, param.options)) or _OTHER[param.kind]
    else:
        low, high = (format_number(limit, decimals=2) for limit in (param.low, param.high))
        usual, allowed = f"{low} … {high} {param.unit}".rstrip(), param.allowed()
    return f"| {param.label} | {_default(param)} | {usual} | {allowed} | {_plain(param.help)} |"


def _default(param: Param) -> str:
    """A default as people read it."""
    if isinstance(param.default, bool) or param.kind == "toggle":
        return "yes" if param.default else "no"
    if isinstance(param.default, str):
        return shown_option(param.default).replace("\n", " / ") or "none"
    return f"{format_number(param.default, decimals=4)} {param.unit}".rstrip()


def schema_text() -> str:
    """JSON Schema of ``job.json``."""
    kinds = [kind.struct for kind in KINDS.values() if issubclass(kind.struct, msgspec.Struct)]
    named = [{"$ref": f"#/$defs/{kind.__name__}"} for kind in kinds]

    def hook(kind: type) -> dict[str, Any]:
        if kind is not What:
            raise NotImplementedError(kind)
        return {"anyOf": named}

    (job, *_), defined = msgspec.json.schema_components([Job, *kinds], schema_hook=hook)
    return json.dumps(_ordered({**job, "$defs": defined}), indent=1, sort_keys=True) + "\n"


def _ordered(tree: Any) -> Any:
    """The same tree with every default that is a set in a fixed order."""
    if isinstance(tree, list):
        return [_ordered(entry) for entry in tree]
    if not isinstance(tree, dict):
        return tree
    sets = tree.get("uniqueItems") or tree.get("type") == "array"
    kept = {key: _ordered(value) for key, value in tree.items()}
    if sets and isinstance(kept.get("default"), list) and all(isinstance(x, str) for x in kept["default"]):
        kept["default"] = sorted(kept["default"])
    return kept


def write(folder: Path) -> None:
    """Write both files."""
    (folder / "operations.md").write_text(operations_text(), encoding="utf-8")
    (folder / "job.schema.json").write_text(schema_text(), encoding="utf-8")


if __name__ == "__main__":
    write(Path(sys.argv[1]))
