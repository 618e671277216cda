"""The written reference, made from the declarations: ``docs/operations.md`` and ``docs/job.schema.json``."""

from __future__ import annotations

import json
import sys
from itertools import groupby
from pathlib import Path
from typing import Any

import msgspec

from ..core import registered
from ..core.buildup.kind import KINDS
from ..core.job.document import Job
from ..core.job.layers import What
from ..core.operation import REGISTRY, Operation, Param
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
    lines = ["# Operations", "", "Made from the declarations by `./dev docs`; lengths in mm, angles in degrees.", ""]
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
    made_from = ", ".join(f"{name} ({kind})" for name, kind in operation.inputs.items())
    lines = [f"### {operation.label}", "", f"`{operation.id}`, version {operation.version}."]
    lines += [f"Made from: {made_from}." if made_from else "Made from nothing.", "", operation.help.strip(), ""]
    if operation.params:
        lines += ["| parameter | default | usual | allowed | meaning |", "|---|---|---|---|---|"]
        lines += [_row(param) for param in operation.params.values()] + [""]
    return lines


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
        usual = allowed = ", ".join(param.options) or _OTHER[param.kind]
    else:
        usual = (
            f"{format_number(param.low, decimals=2)} … {format_number(param.high, decimals=2)} {param.unit}".rstrip()
        )
        allowed = param.allowed()
    return f"| {param.label} (`{param.name}`) | {param.default} | {usual} | {allowed} | {param.help} |"


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
