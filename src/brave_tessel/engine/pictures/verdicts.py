"""What is thought of a source's joins: of each map and each way, by its sheet and what that was made of."""

from __future__ import annotations

from collections.abc import Callable, Mapping

import numpy as np

from ...core.gather.pictures import role_kind
from ...core.job.document import Source
from ...core.maps import MapKind, MapSet
from ...core.plan.planner import FLAT_PX
from ...core.repeat.coherence import read_coherence
from ...core.repeat.cut import paths_on_cell
from ...core.repeat.judge import Joins, JoinVerdict, Verdict, as_fine, judge_joins, shrunk, tone_of
from ...core.repeat.line_ends import read_line_ends
from ...core.repeat.method import method_of
from ..evaluate import always
from ..snapshot import Snapshot

SUPPLIED = (MapKind.HEIGHT, MapKind.NORMAL, MapKind.ROUGHNESS, MapKind.METALNESS, MapKind.AMBIENT_OCCLUSION)
Verdicts = Mapping[MapKind, tuple[Verdict, Verdict]]


def judged(
    snapshot: Snapshot, source: Source, *, current: Callable[[], bool] = always
) -> tuple[tuple[JoinVerdict, JoinVerdict], Verdicts]:
    """The joins across x and across y of a source's sheet, and the verdicts of each map it has of its own. What is
    estimated follows its colour.

    Raises
    ------
    TesselError
        when its way of mending fails: a sheet that stands in for it is not judged.
    """
    planner, run = snapshot.planner(), snapshot.evaluation(current)
    sheet = _as_closed(run.value(planner.sheet(source, FLAT_PX)), source)
    flat = source_sheet = run.value(planner.flat(source, FLAT_PX))
    found = run.value(planner.found(source))
    run.raise_faults()
    method = method_of(source.mend)
    joins: Joins | None = None
    if (cut_on := method.cut_on(flat, found)) is not None:
        source_sheet, cuts = cut_on
        joins = paths_on_cell(cuts, *sheet.grid.shape)
    size = sheet.grid.width_mm, sheet.grid.height_mm
    before, after = (tone_of(one.or_default(MapKind.BASE_COLOUR)) for one in (source_sheet, sheet))
    shifted = source.mend.op != "mend.regrow"
    seams = method.seams_of(found)
    both = judge_joins(before, source_sheet.grid, after, size, joins=joins, seams=seams, shifted=shifted)
    told: dict[MapKind, tuple[Verdict, Verdict]] = {MapKind.BASE_COLOUR: (both[0].verdict, both[1].verdict)}
    given = {role_kind(picture.role) for picture in source.pictures}
    for kind in SUPPLIED:
        if kind in given and kind in source_sheet and kind in sheet:
            told[kind] = _of_map(kind, source_sheet, sheet, joins, both)
    return both, told


def _as_closed(sheet: MapSet, source: Source) -> MapSet:
    """The finished sheet moved back to where its cuts lie."""
    across, down = sheet.grid.mm_per_px
    by = round(source.shift[1] / down), -round(source.shift[0] / across)
    if by == (0, 0):
        return sheet
    return MapSet(sheet.grid, {kind: np.roll(pixels, by, (0, 1)) for kind, pixels in sheet.maps.items()})


def _of_map(
    kind: MapKind, source: MapSet, sheet: MapSet, joins: Joins | None, colour: tuple[JoinVerdict, JoinVerdict]
) -> tuple[Verdict, Verdict]:
    """A map closed with its colour is out of step with it; whether it shows at the join is seen in the map itself."""
    made = []
    for axis, of_colour in zip((1, 0), colour, strict=True):
        planes = [shrunk(one[..., 1 - axis] if one.ndim == 3 else one) for one in (source[kind], sheet[kind])]
        sizes = [(maps.grid.width_mm, maps.grid.height_mm) for maps in (source, sheet)]
        planes[1] = as_fine(planes[1], sizes[1], planes[0], sizes[0])
        if float(np.ptp(planes[0])) < 1e-5:
            made.append(Verdict.GOOD)
            continue
        join = None if joins is None else joins[1 - axis]
        found = read_coherence(planes[0], planes[1], axis=axis, join=join)
        lines = read_line_ends(planes[1], axis=axis, join=join)
        # Of units in step it is the colour that says so; lines that end in one map alone deserve a look.
        lines_end = Verdict.LOOK if lines.broken else Verdict.GOOD
        own = max(Verdict.BROKEN if found.broken else Verdict.LOOK if found.doubtful else Verdict.GOOD, lines_end)
        out_of_step = of_colour.verdict if of_colour.step is not None and of_colour.step.doubtful else Verdict.GOOD
        made.append(max(own, out_of_step))
    return made[0], made[1]
