"""What people want to do with a source and its sheet, as commands."""

from __future__ import annotations

import math

import msgspec
import numpy as np

from ...core.colour import encode_srgb
from ...core.gather.lens import STRAIGHT, Edge, lens_of_edges
from ...core.gather.seen import focal_of_film
from ...core.gather.straighten import places_on_sheet
from ...core.job.commands import AnyCommand, Batch, Insert, Move, Remove, Set
from ...core.job.document import Calibration, Crop, CutPin, Job, Palette, Quiet, Source, Straightening, Touch
from ...core.job.layers import LaidPiece, PieceKind, Scatter
from ...core.job.nodes import Point, Setting, new_id
from ...core.maps import MapKind, MapSet
from ...core.operation import Value
from ...core.phrases import say
from ...core.repeat.break_up import cells_of
from ...core.repeat.patches import Outline, best_place
from ...core.repeat.quieten import Feature, cover_for
from .sources import follow_source

# Frame -----------------------------------------------------------------------------------------------


def set_bend(source: Source, bend: float, *, second: bool = False, gesture: str = "") -> AnyCommand:
    """The lens's curvature, or its ``second`` parameter."""
    return Set(
        path=("sources", source.id, "straightening", "bend_2" if second else "bend"),
        value=round(bend, 6),
        label="Set the lens curvature",
        gesture=gesture,
    )


def set_edges(source: Source, edges: tuple[Edge, ...], *, gesture: str = "") -> AnyCommand:
    """Lines along edges that are straight in the world, and the lens that they tell.

    Raises
    ------
    DegenerateViewError
        when no lens makes them straight.
    """
    size = source.width_px, source.height_px
    bend, second = lens_of_edges(edges, size) if edges else STRAIGHT
    frame = msgspec.structs.replace(source.straightening, edges=edges, bend=round(bend, 6), bend_2=round(second, 6))
    label = "Draw along a straight edge" if edges else "Take the lines along edges away"
    return Set(path=("sources", source.id, "straightening"), value=frame, label=label, gesture=gesture)


def type_focal(source: Source, film_mm: float) -> AnyCommand:
    """A known focal length, in mm as on 36 × 24 mm film; 0 takes the file's again."""
    focal = focal_of_film(film_mm, (source.width_px, source.height_px))
    return Set(
        path=("sources", source.id, "straightening", "focal_typed_px"),
        value=round(focal, 2),
        label="Type the focal length" if film_mm else "Take the focal length from the file",
    )


def lock_proportion(source: Source, ratio: float) -> AnyCommand:
    """A known width over height; 0 takes it from the view again."""
    return Set(
        path=("sources", source.id, "straightening", "locked"),
        value=round(ratio, 6),
        label="Lock the proportion" if ratio else "Take the proportion from the view",
    )


def set_calibration(source: Source, known: Calibration | None) -> AnyCommand:
    """What a colour chart told of a photo's light; None lets it go."""
    return Set(
        path=("sources", source.id, "calibration"),
        value=known,
        label="Calibrate by the chart" if known else "Let the calibration go",
    )


def another_patch(job: Job, source: Source) -> tuple[AnyCommand, Source]:
    """One more patch of the same photo, with a frame of its own beside the first."""
    taken = {s.name for s in job.sources}
    name = next(n for k in range(2, len(taken) + 3) if (n := f"{source.name}, patch {k}") not in taken)
    corners = source.straightening.corners
    middle = np.mean(corners, axis=0)
    inner = tuple((float(x), float(y)) for x, y in middle + (np.asarray(corners) - middle) * 0.6)
    frame = msgspec.structs.replace(
        source.straightening, corners=inner, width_mm=0.0, height_mm=0.0, size_note="", locked=0.0
    )
    fresh = Source(
        id=new_id("source"),
        name=name,
        kind=source.kind,
        blob=source.blob,
        file_name=source.file_name,
        width_px=source.width_px,
        height_px=source.height_px,
        depth=source.depth,
        role=source.role,
        pictures=source.pictures,
        straightening=frame,
        height=source.height,
        shadow=source.shadow,
        light=source.light,
        balance=source.balance,
        path=source.path,
        linked=source.linked,
        calibration=source.calibration,
    )
    return Insert(path=("sources",), item=fresh, label=say("Another patch of {name}", name=source.name)), fresh


def pick_neutral(job: Job, source: Source, colour: str) -> AnyCommand:
    """Make a picked colour neutral."""
    values = {**source.balance.values, "neutral": colour}
    return Set(path=("sources", source.id, "balance", "values"), value=values, label="Pick grey or white")


def hex_of(pixels: np.typing.NDArray[np.float32]) -> str:
    """``#RRGGBB`` of the mean of some linear pixels, scaled down where it would be brighter than white."""
    mean = np.asarray(pixels, np.float64).reshape(-1, 3).mean(0)
    codes = np.rint(encode_srgb(np.clip(mean / max(1.0, float(mean.max())), 0, 1)) * 255).astype(int)
    return "#" + "".join(f"{code:02X}" for code in codes)


# Palettes --------------------------------------------------------------------------------------------


def keep_palette(job: Job, name: str, stops: tuple[str, ...]) -> tuple[AnyCommand, Palette]:
    """Keep colours taken from a picture with the job."""
    taken = {palette.name for palette in job.palettes}
    free = next(n for k in range(1, len(taken) + 2) if (n := name if k == 1 else f"{name} {k}") not in taken)
    palette = Palette(id=new_id("palette"), name=free, stops=stops)
    return Insert(path=("palettes",), item=palette, label=say("Keep the colours of {name}", name=name)), palette


def remove_palette(palette: Palette) -> AnyCommand:
    """The command that takes a palette out of the job."""
    return Remove(path=("palettes", palette.id), label=say("Take out {name}", name=palette.name))


# Choose, cut -----------------------------------------------------------------------------------------


def set_crop(job: Job, source: Source, crop: Crop | None, *, gesture: str = "") -> AnyCommand:
    """The part of the sheet that is made to repeat; None is all of it."""
    command = Set(path=("sources", source.id, "crop"), value=crop, label="Choose the repeat", gesture=gesture)
    return follow_source(job, msgspec.structs.replace(source, crop=crop), command, gesture)


def put_pin(source: Source, pin: CutPin, *, gesture: str = "") -> AnyCommand:
    """A point the cut must pass, new or moved."""
    pins = (*(p for p in source.pins if p.id != pin.id), pin)
    return Set(path=("sources", source.id, "pins"), value=pins, label="Pull the cut", gesture=gesture)


def remove_pins(source: Source, id: str = "") -> AnyCommand:
    """Let the cut go, at one point or everywhere."""
    pins = tuple(pin for pin in source.pins if id and pin.id != id)
    return Set(path=("sources", source.id, "pins"), value=pins, label="Let the cut go")


# Touch up --------------------------------------------------------------------------------------------

_LABELS = {
    "touch.clone": "Clone",
    "touch.heal": "Heal",
    "touch.paint": "Paint",
    "touch.smudge": "Smudge",
    "touch.sharpen": "Sharpen",
    "touch.piece": "Move a piece",
}


def begin_touch(
    source: Source, brush: Setting, points: tuple[Point, ...], *, offset: Point, tip: str, maps: frozenset[MapKind]
) -> tuple[AnyCommand, Touch]:
    """A touch-up stroke; further points follow as one gesture."""
    touch = Touch(id=new_id("touch"), brush=brush, points=points, offset=offset, tip=tip, maps=maps)
    path = ("sources", source.id, "touches")
    return Insert(path=path, item=touch, label=_LABELS.get(brush.op, "Touch up"), gesture=touch.id), touch


def lengthen_touch(source: Source, touch: Touch, points: tuple[Point, ...]) -> AnyCommand:
    """The stroke with further points."""
    return Set(
        path=("sources", source.id, "touches", touch.id, "points"),
        value=points,
        label=_LABELS.get(touch.brush.op, "Touch up"),
        gesture=touch.id,
    )


def pick_shadow(source: Source, which: str, at: Point, *, first: bool) -> AnyCommand:
    """Where a shadow's place in the light (``lit``) or its dark one (``dark``) lies, shares of the sheet from left and
    foot; ``first`` lifts it too.
    """
    values = {**source.shadow.values, f"{which}_x": round(at[0], 4), f"{which}_y": round(at[1], 4)}
    if first:
        values["strength"] = 1.0
    setting = msgspec.structs.replace(source.shadow, values=values)
    return Set(path=("sources", source.id, "shadow"), value=setting, label="Lift a cast shadow")


def light_along(source: Source, thrower: Point, tip: Point) -> AnyCommand | None:
    """Where a source's light came from, by a cast shadow drawn on the photo from what throws it to its tip, photo
    pixels; None where the two lie on one another.
    """
    frame = source.straightening
    picture = (source.width_px, source.height_px)
    size = frame.width_mm, frame.height_mm
    (x0, y0), (x1, y1) = places_on_sheet(frame.corners, (thrower, tip), size, lens=frame.lens, picture_size=picture)
    if math.dist((x0, y0), (x1, y1)) < 1e-6 * max(size):
        return None
    # Places count down, bearings anticlockwise; the light stands opposite the tip.
    bearing = round(math.degrees(math.atan2(y1 - y0, x0 - x1)), 1)
    setting = msgspec.structs.replace(
        source.height, values={**source.height.values, "one_side": True, "light_bearing": bearing}
    )
    return Set(path=("sources", source.id, "height"), value=setting, label="Say where the light came from")


def put_touch(source: Source, touch: Touch, *, gesture: str = "") -> AnyCommand:
    """A touch as it is now: new, or in the place of the one it was."""
    path = ("sources", source.id, "touches")
    label = _LABELS.get(touch.brush.op, "Touch up")
    if any(one.id == touch.id for one in source.touches):
        return Set(path=(*path, touch.id), value=touch, label=label, gesture=gesture)
    return Insert(path=path, item=touch, label=label, gesture=gesture)


def remove_touch(source: Source, touch: str) -> AnyCommand:
    """The command that takes a touch off a sheet."""
    return Remove(path=("sources", source.id, "touches", touch), label="Take out a stroke")


def set_shift(source: Source, shift: Point, *, gesture: str = "") -> AnyCommand:
    """Move the whole sheet on itself; strokes stay where they are on the picture."""
    width, height = (max(side, 1e-6) for side in source.sheet_mm)
    x, y = (round((v + side / 2) % side - side / 2, 3) for v, side in zip(shift, (width, height), strict=True))
    return Set(path=("sources", source.id, "shift"), value=(x, y), label="Shift the sheet", gesture=gesture)


def likeliest_offset(maps: MapSet, spot: Point, size: float) -> Point:
    """From where healing a spot (mm, y up) takes best: right and up, mm."""
    grid = maps.grid
    outline = Outline(min(0.9 * size, 0.24 * grid.width_mm), min(0.9 * size, 0.24 * grid.height_mm), 0.5)
    pictures = {kind: maps[kind] for kind in (MapKind.BASE_COLOUR, MapKind.HEIGHT) if kind in maps}
    at = spot[0] % grid.width_mm, grid.height_mm - spot[1] % grid.height_mm
    x, y = best_place(pictures, dict.fromkeys(pictures, 1.0), grid, at, outline)
    return round(x - at[0], 3), round(at[1] - y, 3)


# Quieten ---------------------------------------------------------------------------------------------


def quieten_feature(source: Source, maps: MapSet, feature: Feature) -> AnyCommand:
    """Cover a feature from elsewhere in the sheet. ``maps`` are those it was found on, before the shift."""
    height = maps.grid.height_mm
    from_x, from_y = cover_for(maps, feature)
    quiet = Quiet(
        id=new_id("quiet"),
        x_mm=round(feature.x, 3),
        y_mm=round(height - feature.y, 3),
        size_mm=round(feature.size, 3),
        from_x_mm=round(from_x, 3),
        from_y_mm=round(height - from_y, 3),
    )
    return Insert(
        path=("sources", source.id, "quiets"), item=quiet, label=say("Cover a {word} spot", word=feature.word)
    )


def remove_quiet(source: Source, quiet: str) -> AnyCommand:
    """The command that uncovers a spot again."""
    return Remove(path=("sources", source.id, "quiets", quiet), label="Uncover a spot")


CELLS = 4
"""Cells each way of a sheet whose repeat is broken, before anyone says otherwise."""


def set_breakup(job: Job, source: Source, op: str) -> AnyCommand:
    """Break the repeat another way, over as many cells as before or over some where there was one; not at all where no
    operation is named.
    """
    values: dict[str, Value] = {
        name: source.breakup.value(name) for name in ("across", "up", "seed") if name in source.breakup.complete()
    }
    if max(cells_of(source.breakup)) == 1 or not op:
        values |= dict.fromkeys(("across", "up"), CELLS if op else 1)
    kept = source.breakup
    setting = Setting(op=op, values=values) if op else msgspec.structs.replace(kept, values={**kept.values, **values})
    label = "Break the repeat another way" if op else "Let the repeat be"
    command = Set(path=("sources", source.id, "breakup"), value=setting, label=label)
    return follow_source(job, msgspec.structs.replace(source, breakup=setting), command)


# Scatter ---------------------------------------------------------------------------------------------


def new_scatter(job: Job) -> tuple[AnyCommand, Source]:
    """A scatter sheet with one kind of piece."""
    taken = {source.name for source in job.sources}
    name = next(
        n for k in range(1, len(taken) + 2) if (n := "Scatter sheet" if k == 1 else f"Scatter sheet {k}") not in taken
    )
    kind = PieceKind(id=new_id("kind"), name="Pebble")
    whole = ((0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0))
    source = Source(
        id=new_id("source"),
        name=name,
        kind="scatter",
        straightening=Straightening(corners=whole),
        scatter=Scatter(kinds=(kind,)),
    )
    return Insert(path=("sources",), item=source, label="New scatter sheet"), source


def scatter_path(source: Source, *more: str) -> tuple[str, ...]:
    """The way to something within a source's scatter sheet."""
    return ("sources", source.id, "scatter", *more)


def add_kind(source: Source, kind: PieceKind) -> AnyCommand:
    """The command that adds a kind of piece to a scatter sheet."""
    return Insert(path=scatter_path(source, "kinds"), item=kind, label=say("Add {name}", name=kind.name))


def remove_kind(source: Source, id: str) -> AnyCommand:
    """Take a kind out, and its pieces with it."""
    assert source.scatter is not None
    laid = tuple(piece for piece in source.scatter.laid if piece.kind != id)
    return Batch(
        commands=(
            Remove(path=scatter_path(source, "kinds", id), label="kind"),
            Set(path=scatter_path(source, "laid"), value=laid, label="pieces"),
        ),
        label="Take out a kind",
    )


def lay_piece(source: Source, kind: str, at: Point, *, like: LaidPiece | None = None) -> tuple[AnyCommand, LaidPiece]:
    """Lay a piece by hand, like another one if given."""
    id = new_id("piece")
    piece = (
        LaidPiece(id=id, kind=kind, x_mm=at[0], y_mm=at[1])
        if like is None
        else msgspec.structs.replace(like, id=id, x_mm=at[0], y_mm=at[1])
    )
    return Insert(path=scatter_path(source, "laid"), item=piece, label="Lay a piece", gesture=id), piece


def move_piece(source: Source, piece: LaidPiece, at: Point, *, gesture: str) -> AnyCommand:
    """The command that moves a laid piece to a place, mm; one gesture is one step."""
    assert source.scatter is not None
    x, y = at[0] % source.scatter.width_mm, at[1] % source.scatter.height_mm
    value = msgspec.structs.replace(piece, x_mm=round(x, 3), y_mm=round(y, 3))
    return Set(path=scatter_path(source, "laid", piece.id), value=value, label="Move a piece", gesture=gesture)


def change_piece(source: Source, piece: LaidPiece, *, gesture: str = "") -> AnyCommand:
    """Another turn, size, tilt or level of a laid piece."""
    return Set(path=scatter_path(source, "laid", piece.id), value=piece, label="Change a piece", gesture=gesture)


def change_kind(source: Source, kind: PieceKind, *, gesture: str = "") -> AnyCommand:
    """Another shape, size or share of a kind of piece."""
    return Set(
        path=scatter_path(source, "kinds", kind.id),
        value=kind,
        label=say("Change {name}", name=kind.name),
        gesture=gesture,
    )


def set_strew(source: Source, name: str, value: Value, *, gesture: str = "") -> AnyCommand:
    """How the pieces are strewn."""
    assert source.scatter is not None
    values = {**source.scatter.strew.values, name: value}
    return Set(
        path=scatter_path(source, "strew", "values"),
        value=values,
        label=say("Set {name}", name=name.replace("_", " ")),
        gesture=gesture,
    )


def remove_piece(source: Source, id: str) -> AnyCommand:
    """The command that takes a laid piece off the sheet."""
    return Remove(path=scatter_path(source, "laid", id), label="Take out a piece")


def raise_piece(source: Source, id: str) -> AnyCommand:
    """Lay a piece on top of the others."""
    assert source.scatter is not None
    return Move(path=scatter_path(source, "laid", id), index=len(source.scatter.laid), label="Lay on top")


def resize_scatter(job: Job, source: Source, width: float, height: float) -> AnyCommand:
    """Another size of a scatter sheet; surfaces that follow it take it."""
    assert source.scatter is not None
    scatter = msgspec.structs.replace(source.scatter, width_mm=width, height_mm=height)
    command = Set(path=("sources", source.id, "scatter"), value=scatter, label="Size the scatter sheet")
    return follow_source(job, msgspec.structs.replace(source, scatter=scatter), command)
