"""A source's sheet by itself as files: every map, and every variant of a set."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path
from typing import Any

from ...core.errors import CancelledError
from ...core.handover.conversions import height_range, stored
from ...core.handover.names import file_stem
from ...core.job.document import Source
from ...core.maps import TRAITS, MapKind, MapSet
from ...core.operation import find
from ...core.plan.planner import FLAT_PX
from ...core.repeat.break_up import cells_of
from ...core.repeat.edge_kinds import cells_in_order, laid_cells, make_cells, together
from ...core.repeat.mend import mended_size
from ...core.repeat.variants import make_variants
from ...formats.disk import write_atomically
from ...formats.images import encode_png
from ..evaluate import always
from ..snapshot import Snapshot

ATLAS = "atlas"


def sheet_maps(
    snapshot: Snapshot, source: Source, *, px: int = 0, current: Callable[[], bool] = always
) -> dict[str, MapSet]:
    """The sheet's maps by the name of each variant; one without a name where there are none."""
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    want = px or native_px(planner.sheet_px(source, 16_384))
    if source.breakup.op == "breakup.edges":
        values = find(source.breakup.op).bind(source.breakup.values)
        count = int(str(values["count"]))
        sheet = run.value(planner.sheet(source, want))
        cells = make_cells(sheet, count=count, soften=float(values["soften"]), seed=int(values["seed"]))
        return {ATLAS: together(cells, cells_in_order(count))}
    if source.breakup.op != "breakup.variants":
        return {
            "": run.value(planner.estimated(source, None, planner.broken(source, want), source.id))
            if source.scatter is None
            else run.value(planner.broken(source, want))
        }
    values = find(source.breakup.op).bind(source.breakup.values)
    sheet = run.value(planner.sheet(source, want))
    made = make_variants(sheet, count=int(values["count"]), soften=float(values["soften"]), seed=int(values["seed"]))
    return {f"variant-{number + 1}": maps for number, maps in enumerate(made)}


def atlas_index(source: Source) -> dict[str, Any]:
    """What a set of cells tells beside its atlas: the kinds of all edges, and one field that is laid of them."""
    values = find(source.breakup.op).bind(source.breakup.values)
    count, seed = int(str(values["count"])), int(values["seed"])
    across, up = cells_of(source.breakup)
    rows, (width, height) = cells_in_order(count), mended_size(source)
    number = {cell: k for k, cell in enumerate(cell for row in rows for cell in row)}
    return {
        "atlas": {"columns": len(rows[0]), "rows": len(rows)},
        "cell_mm": [round(width, 4), round(height, 4)],
        "rule": "Two cells meet where the edges that touch are of one kind.",
        "cells": [
            {"cell": k, "column": k % len(rows[0]), "row": k // len(rows[0]), **asdict(cell)}
            for cell, k in number.items()
        ],
        "field": {
            "seed": seed,
            "rows_from_the_top": [[number[cell] for cell in row] for row in laid_cells(across, up, count, seed)],
        },
    }


def native_px(px: int) -> int:
    """The density a sheet is written at: its own, at least what it is mended at."""
    return max(FLAT_PX, min(px, 8192))


def write_sheet(
    snapshot: Snapshot,
    source: Source,
    folder: Path,
    *,
    px: int = 0,
    progress: Callable[[str], None] | None = None,
    current: Callable[[], bool] = always,
) -> list[Path]:
    """Write the sheet's maps as PNG with their real size, a set of cells with its index; returns the files.

    Raises
    ------
    CannotWriteError
        when the folder cannot be written; complete files stay.
    """
    written = []
    for variant, maps in sheet_maps(snapshot, source, px=px, current=current).items():
        for kind, pixels in maps.maps.items():
            if not current():
                raise CancelledError
            name = "_".join(part for part in (file_stem(source.name), variant, kind.value) if part) + ".png"
            if progress:
                progress(f"Write {name}")
            span = height_range(pixels) if kind is MapKind.HEIGHT else (-1.0, 1.0)
            note = f', "height_black_mm": {span[0]:g}, "height_white_mm": {span[1]:g}' if kind is MapKind.HEIGHT else ""
            codes = stored(kind, pixels, depth=TRAITS[kind].depth, height_mm=span)
            grid = maps.grid
            data = encode_png(
                codes, width_mm=grid.width_mm, height_mm=grid.height_mm, srgb=TRAITS[kind].colour, note=note
            )
            write_atomically(folder / name, data)
            written.append(folder / name)
    if source.breakup.op == "breakup.edges":
        index = folder / f"{file_stem(source.name)}_{ATLAS}.json"
        write_atomically(index, json.dumps(atlas_index(source), indent=1).encode())
        written.append(index)
    return written
