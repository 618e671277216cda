"""From a source to its sheet: straightened, evened, cropped, mended, touched up, its repeat broken."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial
from typing import Any

import numpy as np

from ..colour import encode_srgb, luminance
from ..errors import MissingError, TesselError
from ..gather.chart import calibrated
from ..gather.lens import Lens
from ..gather.pictures import merged, onto_sheet
from ..gather.several import SAME_PATCH
from ..gather.straighten import proposed_px_per_mm, straighten
from ..job.document import Job, Source
from ..job.layers import PieceKind
from ..job.nodes import Setting
from ..maps import TRAITS, MapKind, MapSet, plain
from ..operation import unknown
from ..repeat.break_up import cells_of
from ..repeat.choose import check_crop, cropped
from ..repeat.cut import PATH_PX
from ..repeat.method import Method, method_of
from ..repeat.quieten import quieten
from ..repeat.resample import resampled
from ..repeat.touch_up import shifted, touched
from ..scatter.lay import PieceMaps, cut_piece, lay_scatter, made_piece, model_piece
from ..sheet import Grid, Raster
from .tasks import Letters, Loader, Task, fail, no_letters, task_key

FLAT_PX = PATH_PX
"""Sheets are mended at this size, or at their native one when a finer picture is asked for."""
NATIVE_MAX_PX = 8192
PIECE_PX = 384
"""Pieces are made with so many pixels along their longer side, and laid from there."""


class SheetPlanner:
    """The tasks of stages 1 and 2. Holds nothing but the frozen job and ways to load pixels."""

    def __init__(
        self,
        job: Job,
        load: Loader,
        load_codes: Loader | None = None,
        load_model: Loader | None = None,
        load_letters: Letters = no_letters,
    ) -> None:
        self.job = job
        self.load = load
        self.load_codes = load_codes or load
        self.load_model = load_model or load
        self.load_letters = load_letters

    # Gather ----------------------------------------------------------------------------------------

    def picture(self, source: Source) -> Task:
        """The source's own pixels, linear (H, W, 3)."""
        return Task(task_key("picture", source.blob), "Read the picture", source.id, partial(self.load, source.blob))

    def straight(self, source: Source, px: int) -> Task:
        """The frame straightened, as a flat map set whose longer side has ``px`` pixels."""
        frame = source.straightening
        if not frame.sized:
            return Task(task_key("unsized", source.id), "Straighten", source.id, partial(_unsized, source.name))
        grid = Grid.for_repeat(frame.width_mm, frame.height_mm, px)
        return Task(
            task_key("straighten", source.blob, frame.corners, frame.lens, grid),
            "Straighten",
            source.id,
            partial(_straighten, corners=frame.corners, lens=frame.lens, grid=grid),
            (self.picture(source),),
        )

    def evened(self, source: Source, px: int) -> Task:
        """The straight frame with its light evened, its colour balanced and tinted, all maps beside it."""
        done = self.straight(source, px)
        if any(picture.role == SAME_PATCH for picture in source.pictures) and source.straightening.sized:
            done = self._merged(source, done)
        if source.calibration is not None:
            matrix = source.calibration.matrix
            key = task_key("calibrated", matrix, done.key)
            done = Task(key, "Calibrate", source.id, partial(_calibrate, matrix=matrix), (done,))
        lifted = (source.shadow,) if source.shadow.values.get("strength") else ()
        for setting in (*lifted, source.light, source.balance):
            done = self._coloured(source, setting, done)
        if source.pictures and source.straightening.sized:
            done = self._with_pictures(source, done)
        return self._coloured(source, source.tint, done)

    def _coloured(self, source: Source, setting: Setting, flat: Task) -> Task:
        operation = setting.operation
        if not operation.known:
            error = unknown(setting.op, setting.version)
            key = task_key("unknown", setting.op, setting.version, flat.key)
            return Task(key, operation.label, source.id, partial(fail, error), (), flat)
        return Task(
            task_key(operation.id, operation.version, setting.complete(), flat.key),
            operation.label,
            source.id,
            partial(_recolour, setting=setting),
            (flat,),
        )

    def _codes(self, source: Source) -> tuple[Task, ...]:
        return tuple(
            Task(task_key("codes", p.blob), f"Read {p.file_name}", source.id, partial(self.load_codes, p.blob))
            for p in source.pictures
        )

    def _told(self, source: Source) -> list[object]:
        return [(p.role, p.channel, p.green, p.turned_over, p.curved) for p in source.pictures]

    def _merged(self, source: Source, straight: Task) -> Task:
        codes = self._codes(source)
        return Task(
            task_key("merged", self._told(source), straight.key, *(task.key for task in codes)),
            "Lessen highlights and shadows",
            source.id,
            partial(_merge, source=source),
            (straight, *codes),
        )

    def _with_pictures(self, source: Source, flat: Task) -> Task:
        """The sheet with the source's further maps beside its main picture."""
        codes = self._codes(source)
        return Task(
            task_key(
                "pictures",
                self._told(source),
                source.role,
                source.straightening,
                flat.key,
                *(task.key for task in codes),
            ),
            "Straighten the maps",
            source.id,
            partial(_pictures, source=source),
            (flat, *codes),
        )

    def flat(self, source: Source, px: int) -> Task:
        """What is made to repeat: the evened frame, or the part of it that was chosen, ``px`` pixels on its longer
        side.
        """
        crop, frame = source.crop, source.straightening
        if crop is None or not frame.sized:
            return self.evened(source, px)
        whole_px = min(
            NATIVE_MAX_PX, math.ceil(px * max(frame.width_mm, frame.height_mm) / max(crop.width_mm, crop.height_mm))
        )
        whole = self.evened(source, whole_px)
        return Task(
            task_key("crop", crop, whole.key), "Choose the repeat", source.id, partial(_crop, source=source), (whole,)
        )

    # Repeat ----------------------------------------------------------------------------------------

    def found(self, source: Source, *, px: int = 0) -> Task:
        """What a source's way of mending finds, such as its cuts; found once for every size."""
        method = method_of(source.mend)
        flat = self.flat(source, px or method.find_px)
        relevant = {name: getattr(method, name) for name in method.found_by}
        pins = [(pin.axis, pin.along, pin.across) for pin in source.pins]
        return Task(
            task_key("found", source.mend.op, relevant, pins, flat.key),
            f"Find: {source.mend.operation.label.lower()}",
            source.id,
            partial(_found, method=method, pins=pins),
            (flat,),
        )

    def mended(self, source: Source, px: int, *, find_px: int = 0) -> Task:
        """The closed sheet, before it is touched up."""
        if source.scatter is not None:
            return self.scattered(source, px)
        try:
            method, found = method_of(source.mend), self.found(source, px=find_px)
        except TesselError as error:
            return Task(task_key("unmendable", source.id), "Mend", source.id, partial(fail, error))
        flat = self.flat(source, self.sheet_px(source, px))
        return Task(
            task_key("sheet", source.mend.op, source.mend.bound(), flat.key, found.key),
            "Mend the seams",
            source.id,
            partial(_mend, method=method),
            (flat, found),
        )

    def sheet(self, source: Source, px: int) -> Task:
        """The closed sheet, quietened, shifted and touched up; at ``FLAT_PX`` or, for finer pictures, at the
        photo's own density. Strokes but the last are one task, so that painting carries out only the last.
        """
        done = self.mended(source, px)
        if source.quiets:
            seen = self.mended(source, FLAT_PX)
            done = Task(
                task_key("quiet", source.quiets, done.key, seen.key),
                "Quieten",
                source.id,
                partial(_quieten, quiets=source.quiets),
                (done, seen),
            )
        if source.shift != (0.0, 0.0):
            done = Task(
                task_key("shift", source.shift, done.key),
                "Shift",
                source.id,
                partial(shifted, shift=source.shift),
                (done,),
            )
        for strokes in (source.touches[:-1], source.touches[-1:]):
            done = self._touched(source, strokes, done) if strokes else done
        return done

    def _touched(self, source: Source, strokes: tuple[Any, ...], sheet: Task) -> Task:
        tips = sorted({stroke.tip for stroke in strokes} - {""})
        blobs = {tip: self.job.source(tip).blob for tip in tips if any(s.id == tip for s in self.job.sources)}
        told = [
            [s.brush.op, s.brush.complete(), s.points, s.offset, blobs.get(s.tip, ""), sorted(s.maps)] for s in strokes
        ]
        pixels = tuple(
            Task(task_key("picture", blob), "Read the tip", source.id, partial(self.load, blob))
            for blob in blobs.values()
        )
        return Task(
            task_key("touch", told, sheet.key),
            "Touch up",
            source.id,
            partial(_touch, strokes=strokes, tips=list(blobs)),
            (sheet, *pixels),
        )

    def broken(self, source: Source, px: int) -> Task:
        """The sheet with its repeat broken over a larger one, about ``px`` pixels on its longer side."""
        operation = source.breakup.operation
        # A way of another version leaves the sheet as it is.
        across, up = cells_of(source.breakup)
        if across == 1 and up == 1:
            return self.sheet(source, px)
        cell_px = max(64, -(-px // max(across, up)))
        sheet = self.sheet(source, cell_px)
        return Task(
            task_key("broken", operation.id, operation.version, source.breakup.complete(), cell_px, sheet.key),
            operation.label,
            source.id,
            partial(_broken, setting=source.breakup, px=cell_px),
            (sheet,),
        )

    def sheet_px(self, source: Source, px: int) -> int:
        """How many pixels the flat sheet gets so that a cell of ``px`` pixels is well fed."""
        if px <= FLAT_PX or source.scatter is not None:
            return max(px, FLAT_PX) if source.scatter is None else px
        frame = source.straightening
        native = proposed_px_per_mm(frame.corners, frame.width_mm, frame.height_mm) * max(source.sheet_mm)
        return max(FLAT_PX, min(NATIVE_MAX_PX, math.ceil(native), math.ceil(px * 1.25)))

    # Scatter ---------------------------------------------------------------------------------------

    def pieces(self, source: Source) -> tuple[Task, ...]:
        """What each kind of piece of a scatter sheet looks like."""
        assert source.scatter is not None
        return tuple(self.piece(kind, PIECE_PX, source.id) for kind in source.scatter.kinds)

    def piece(self, kind: PieceKind, px: int, owner: str) -> Task:
        """What a kind of piece looks like: drawn, cut from a source, or a model seen from above."""
        inputs: tuple[Task, ...] = ()
        work: Callable[..., PieceMaps] = partial(made_piece, kind=kind, px=px)
        if kind.blob:
            inputs = (Task(task_key("model", kind.blob), "Read the model", owner, partial(self.load_model, kind.blob)),)
            work = partial(model_piece, kind=kind)
        elif kind.source and any(s.id == kind.source for s in self.job.sources):
            inputs = (self.picture(self.job.source(kind.source)),)
            work = partial(cut_piece, kind=kind, px=px)
        told = (kind.shape.op, kind.shape.complete(), kind.width_mm, kind.height_mm, px)
        return Task(task_key("piece", told, *(task.key for task in inputs)), f"Make {kind.name}", owner, work, inputs)

    def scattered(self, source: Source, px: int) -> Task:
        """A scatter sheet's maps."""
        scatter = source.scatter
        assert scatter is not None
        grid = Grid.for_repeat(scatter.width_mm, scatter.height_mm, px)
        pieces = self.pieces(source)
        told = [[kind.id, kind.share, kind.width_mm, kind.height_mm] for kind in scatter.kinds]
        return Task(
            task_key("scatter", told, scatter.strew.complete(), scatter.laid, grid, *(task.key for task in pieces)),
            "Strew the pieces",
            source.id,
            partial(_scatter, scatter=scatter, grid=grid),
            pieces,
        )


def _unsized(name: str) -> MapSet:
    raise MissingError("size", value=name, remedy="Give the straightening frame its real size in Gather.")


def _calibrate(maps: MapSet, *, matrix: tuple[float, ...]) -> MapSet:
    return maps.with_maps(base_colour=calibrated(maps[MapKind.BASE_COLOUR], matrix))


def _straighten(picture: Raster, *, corners: Any, lens: Lens, grid: Grid) -> MapSet:
    straight = straighten(picture, corners, width_px=grid.width_px, height_px=grid.height_px, lens=lens)
    return MapSet(grid, {MapKind.BASE_COLOUR: straight})


def _recolour(flat: MapSet, *, setting: Setting) -> MapSet:
    if MapKind.BASE_COLOUR not in flat:
        return flat
    operation = setting.operation
    before = flat[MapKind.BASE_COLOUR]
    after = operation.run(flat.grid, before, **operation.bind(setting.values))
    return flat if after is before else flat.with_maps(base_colour=after)


def _merge(straight: MapSet, *codes: Raster, source: Source) -> MapSet:
    frame = source.straightening
    size = (source.width_px, source.height_px)
    colour = merged(
        straight[MapKind.BASE_COLOUR], codes, source.pictures, frame.corners, size, straight.grid, frame.lens
    )
    return straight.with_maps(base_colour=colour)


def _pictures(flat: MapSet, *codes: Raster, source: Source) -> MapSet:
    if source.role != MapKind.BASE_COLOUR:
        grey = np.ascontiguousarray(plain(flat.grid, TRAITS[MapKind.BASE_COLOUR].default))
        flat = MapSet(flat.grid, {MapKind.BASE_COLOUR: grey})
    return onto_sheet(
        flat,
        codes,
        source.pictures,
        source.straightening.corners,
        (source.width_px, source.height_px),
        source.straightening.lens,
    )


def _crop(whole: MapSet, *, source: Source) -> MapSet:
    assert source.crop is not None
    check_crop(source.crop, source.straightening.width_mm, source.straightening.height_mm)
    return cropped(whole, source.crop)


def _found(flat: MapSet, *, method: Method, pins: Any) -> Any:
    return method.find(flat, pins)


def _mend(flat: MapSet, found: Any, *, method: Method) -> MapSet:
    return method.apply(flat, found)


def _quieten(sheet: MapSet, seen: MapSet, *, quiets: Any) -> MapSet:
    return quieten(sheet, quiets, found_on=seen)


def _touch(sheet: MapSet, *pixels: Raster, strokes: Any, tips: list[str]) -> MapSet:
    made = {}
    for tip, picture in zip(tips, pixels, strict=True):
        side = min(picture.shape[:2])
        top, left = (picture.shape[0] - side) // 2, (picture.shape[1] - side) // 2
        tone = encode_srgb(np.clip(luminance(picture[top : top + side, left : left + side]), 0, 1))
        made[tip] = np.asarray(tone, np.float32)
    return touched(sheet, strokes, made)


def _scatter(*pieces: PieceMaps, scatter: Any, grid: Grid) -> MapSet:
    return lay_scatter(grid, scatter, pieces)


def _broken(sheet: MapSet, *, setting: Setting, px: int) -> MapSet:
    grid = Grid.for_repeat(sheet.grid.width_mm, sheet.grid.height_mm, min(px, max(sheet.grid.shape)))
    cell = MapSet(grid, {kind: resampled(kind, pixels, grid.shape) for kind, pixels in sheet.maps.items()})
    made: MapSet = setting.operation.run(grid, cell, **setting.bound())
    return made
