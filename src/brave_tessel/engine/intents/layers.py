"""What people want to do with layers, as commands: add, move, nest, bundle, copy, paste."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable
from typing import Any

import msgspec

from ...core.errors import DoesNotFitError, NotUnderstoodError
from ...core.job.commands import AnyCommand, Insert, Set, fetch
from ...core.job.document import (
    BundleWhat,
    DecalWhat,
    InscriptionWhat,
    Job,
    Layer,
    PaintedWhat,
    PieceKind,
    Placement,
    PlainWhat,
    RecipeWhat,
    Rule,
    RunWhat,
    Scatter,
    ScatterWhat,
    Setting,
    SourceWhat,
    Surface,
    SurfaceWhat,
    WaterWhat,
    What,
    every_layer,
    layer_path,
    new_id,
)
from ...core.operation import REGISTRY, find
from ...core.recipe.shelf import SHELF, stock_named
from ...core.recipe.stock import STOCK, cover_recipe
from ...core.repeat.mend import closed_size
from ..library.marks_of_use import IMPERFECTIONS, imperfection

Layers = tuple[Layer, ...]
PLAIN = "Plain colour"


def layer_kinds(job: Job, surface: Surface | None = None) -> dict[str, list[str]]:
    """What can be laid on, by name, in groups."""
    sized = [source.name for source in job.sources if source.sized]
    others = [s.name for s in job.surfaces if surface is None or s.id != surface.id]
    return {
        "Recipe": [*STOCK, *(stock.name for stock in SHELF if stock.name not in STOCK)],
        "Source": sized,
        "Surface": others,
        "Decal": ["Recipe", *sized],
        "Special": [PLAIN, "Painted", "Standing water", "Run", "Inscription", "Scatter", "Bundle"],
        "Imperfections": list(IMPERFECTIONS),
    }


def lay_on(
    job: Job, surface: Surface, group: str, kind: str, *, above: str = "", hatch: str = "slant"
) -> tuple[AnyCommand, Layer]:
    """A new layer of a kind above another, in the same bundle, or on top."""
    layer = _made(job, surface, group, kind, hatch)
    return Set(
        path=("surfaces", surface.id, "layers"),
        value=put_in(surface.layers, (layer,), above, "above"),
        label=f"Lay on {layer.name.lower()}",
    ), layer


_SEATS = {
    "ride": Setting(op="seat.by_height", values={"level": 0.5, "feather": 0.3, "drape": 1.0}),
    "over": Setting(op="seat.over", values={"drape": 1.0}),
}


def _made(job: Job, surface: Surface, group: str, kind: str, hatch: str) -> Layer:
    if group == "Imperfections":
        return msgspec.structs.replace(renewed(imperfection(kind)), hatch=hatch)
    what = _what(job, surface, group, kind)
    seat = _SEATS[
        "over"
        if isinstance(what, DecalWhat | InscriptionWhat | RunWhat | ScatterWhat | BundleWhat | PlainWhat)
        and group != "Recipe"
        else "ride"
    ]
    if isinstance(what, PlainWhat | ScatterWhat):
        seat = _SEATS["ride"]
    return Layer(
        id=new_id("layer"),
        name=kind if group != "Decal" else f"{kind} decal",
        what=what,
        hatch="waves" if isinstance(what, WaterWhat) else hatch,
        seat=seat,
    )


def _middle(surface: Surface, share: float = 0.4) -> Placement:
    side = round(share * min(surface.width_mm, surface.height_mm), 1)
    return Placement(
        x_mm=round(surface.width_mm / 2, 1), y_mm=round(surface.height_mm / 2, 1), width_mm=side, height_mm=side
    )


def _what(job: Job, surface: Surface, group: str, kind: str) -> What:
    if group == "Recipe":
        stock = stock_named(kind)
        return RecipeWhat(recipe=STOCK[kind]() if kind in STOCK or stock is None else stock.make())
    if group == "Source":
        source = next(source for source in job.sources if source.name == kind)
        return SourceWhat(
            source=source.id,
            across=_count(surface.width_mm, closed_size(source)[0]),
            up=_count(surface.height_mm, closed_size(source)[1]),
        )
    if group == "Surface":
        other = next(s for s in job.surfaces if s.name == kind)
        return SurfaceWhat(
            surface=other.id,
            across=_count(surface.width_mm, other.width_mm),
            up=_count(surface.height_mm, other.height_mm),
        )
    if group == "Decal":
        return _decal(job, surface, kind)
    return _special(surface, kind)


def _count(whole: float, part: float) -> int:
    return max(1, round(whole / part)) if part > 0 else 1


def _decal(job: Job, surface: Surface, kind: str) -> DecalWhat:
    if kind == "Recipe":
        return DecalWhat(placement=_middle(surface), recipe=STOCK["Clouds"]())
    source = next(source for source in job.sources if source.name == kind)
    width, height = source.sheet_mm
    place = _middle(surface)
    if 0 < width < 2 * surface.width_mm:
        place = msgspec.structs.replace(place, width_mm=width, height_mm=height)
    return DecalWhat(placement=place, source=source.id)


def _special(surface: Surface, kind: str) -> What:
    width, height = surface.width_mm, surface.height_mm
    made: dict[str, Callable[[], What]] = {
        PLAIN: PlainWhat,
        "Painted": PaintedWhat,
        "Standing water": WaterWhat,
        "Bundle": BundleWhat,
        "Run": lambda: RunWhat(
            points=(
                (0.0, round(height / 2, 2)),
                (round(width / 2, 2), round(height / 2, 2)),
                (width, round(height / 2, 2)),
            )
        ),
        "Inscription": lambda: InscriptionWhat(
            placement=msgspec.structs.replace(_middle(surface, 0.5), height_mm=round(0.14 * min(width, height), 1))
        ),
        "Scatter": lambda: ScatterWhat(
            scatter=Scatter(
                kinds=(PieceKind(id=new_id("kind"), name="Pebble"),),
                strew=Setting(op="scatter.strew", values={"density": 120}),
            )
        ),
    }
    return made[kind]()


# The tree ---------------------------------------------------------------------------------------------


def take_out(layers: Layers, ids: Collection[str]) -> tuple[Layers, Layers]:
    """The layers without some, and those; a bundle that goes takes what is in it along."""
    rest: list[Layer] = []
    taken: list[Layer] = []
    for layer in layers:
        if layer.id in ids:
            taken.append(layer)
            continue
        if isinstance(layer.what, BundleWhat):
            inner, out = take_out(layer.what.layers, ids)
            taken += out
            layer = _holding(layer, inner)
        rest.append(layer)
    return tuple(rest), tuple(taken)


def _holding(layer: Layer, inner: Layers) -> Layer:
    assert isinstance(layer.what, BundleWhat)
    if layer.what.layers == inner:
        return layer
    return msgspec.structs.replace(layer, what=msgspec.structs.replace(layer.what, layers=inner))


def put_in(layers: Layers, fresh: Layers, target: str, where: str) -> Layers:
    """Layers put ``above`` or ``below`` another one, or ``into`` a bundle on top; at the very top where there is no
    target.
    """
    done, found = _put(layers, fresh, target, where)
    return done if found else (*layers, *fresh)


def _put(layers: Layers, fresh: Layers, target: str, where: str) -> tuple[Layers, bool]:
    made: list[Layer] = []
    found = False
    for layer in layers:
        if layer.id == target:
            found = True
            if where == "into" and isinstance(layer.what, BundleWhat):
                made.append(_holding(layer, (*layer.what.layers, *fresh)))
            else:
                made += [*fresh, layer] if where == "below" else [layer, *fresh]
            continue
        if isinstance(layer.what, BundleWhat) and not found:
            inner, found = _put(layer.what.layers, fresh, target, where)
            layer = _holding(layer, inner)
        made.append(layer)
    return tuple(made), found


def _set(surface: Surface, layers: Layers, label: str) -> AnyCommand:
    return Set(path=("surfaces", surface.id, "layers"), value=layers, label=label)


def chosen_layers(surface: Surface, ids: Collection[str]) -> Layers:
    """The layers of some ids from the bottom up; those within a chosen bundle go with it."""
    return take_out(surface.layers, ids)[1]


def refuse_locked(surface: Surface, ids: Collection[str]) -> None:
    """
    Raises
    ------
    DoesNotFitError
        when one of the layers is locked.
    """
    held = next((layer for layer, _ in every_layer(surface.layers) if layer.id in ids and layer.locked), None)
    if held is not None:
        raise DoesNotFitError(held.name, value="a change", allowed="the layer is locked; unlock it first")


def remove_layers(surface: Surface, ids: Collection[str]) -> AnyCommand:
    """Take layers out."""
    refuse_locked(surface, ids)
    rest, taken = take_out(surface.layers, ids)
    return _set(surface, rest, f"Take out {taken[0].name}" if len(taken) == 1 else f"Take out {len(taken)} layers")


def move_layers(surface: Surface, ids: Collection[str], target: str, where: str) -> AnyCommand:
    """Put layers above, below or into another.

    Raises
    ------
    DoesNotFitError
        when a bundle would lie within itself, or in one that is locked.
    """
    refuse_locked(surface, {*ids, target} if where == "into" else ids)
    rest, taken = take_out(surface.layers, ids)
    if any(layer.id == target for moved in taken for layer, _ in every_layer((moved,))):
        raise DoesNotFitError("The bundle", value="that place", allowed="it cannot lie within itself")
    return _set(surface, put_in(rest, taken, target, where), "Reorder layers")


def duplicate_layers(surface: Surface, ids: Collection[str]) -> tuple[AnyCommand, Layers]:
    """The same layers once more, above the topmost of them."""
    twins = tuple(
        msgspec.structs.replace(renewed(layer), name=f"{layer.name} copy") for layer in chosen_layers(surface, ids)
    )
    top = chosen_layers(surface, ids)[-1].id
    return _set(
        surface, put_in(surface.layers, twins, top, "above"), f"Duplicate {twins[-1].name.removesuffix(' copy')}"
    ), twins


def bundle_layers(surface: Surface, ids: Collection[str], *, name: str = "Bundle") -> tuple[AnyCommand, Layer]:
    """Layers held together in a bundle, where the topmost of them was."""
    refuse_locked(surface, ids)
    taken = chosen_layers(surface, ids)
    bundle = Layer(
        id=new_id("layer"), name=name, what=BundleWhat(layers=taken), hatch=taken[-1].hatch, seat=_SEATS["over"]
    )
    marked = put_in(surface.layers, (bundle,), taken[-1].id, "above")
    return _set(surface, _without(marked, {layer.id for layer in taken}, bundle.id), "Bundle layers"), bundle


def _without(layers: Layers, ids: Collection[str], kept: str) -> Layers:
    """Layers taken out except within one bundle."""
    rest = []
    for layer in layers:
        if layer.id == kept:
            rest.append(layer)
        elif layer.id not in ids:
            rest.append(
                _holding(layer, _without(layer.what.layers, ids, kept)) if isinstance(layer.what, BundleWhat) else layer
            )
    return tuple(rest)


def unbundle(surface: Surface, bundle: Layer) -> AnyCommand:
    """The layers of a bundle in its place."""
    assert isinstance(bundle.what, BundleWhat)
    placed = put_in(surface.layers, bundle.what.layers, bundle.id, "above")
    return _set(surface, _drop_one(placed, bundle.id), f"Open {bundle.name}")


def _drop_one(layers: Layers, id: str) -> Layers:
    made = []
    for layer in layers:
        if layer.id == id:
            continue
        made.append(_holding(layer, _drop_one(layer.what.layers, id)) if isinstance(layer.what, BundleWhat) else layer)
    return tuple(made)


def renewed(layer: Layer) -> Layer:
    """The same layer with fresh ids for itself, what is in it and its rules; rules that look at one another follow."""
    names = {inner.id: new_id("layer") for inner, _ in every_layer((layer,))}

    def again(one: Layer) -> Layer:
        rules = tuple(
            msgspec.structs.replace(rule, id=new_id("rule"), rule=_pointing(rule.rule, names)) for rule in one.where
        )
        what = (
            msgspec.structs.replace(one.what, layers=tuple(again(x) for x in one.what.layers))
            if isinstance(one.what, BundleWhat)
            else one.what
        )
        return msgspec.structs.replace(one, id=names[one.id], where=rules, what=what)

    return again(layer)


def _pointing(setting: Setting, names: dict[str, str]) -> Setting:
    if setting.op not in REGISTRY or not any(p.kind == "layer" for p in REGISTRY[setting.op].params.values()):
        return setting
    told = {
        name: names.get(str(value), value) if find(setting.op).params[name].kind == "layer" else value
        for name, value in setting.values.items()
    }
    return msgspec.structs.replace(setting, values=told)


# One layer --------------------------------------------------------------------------------------------


def set_in_layer(
    surface: Surface, layer: Layer, where: tuple[str, ...], value: Any, label: str, *, gesture: str = ""
) -> AnyCommand:
    """Put a value at a place within a layer, wherever the layer lies."""
    return Set(path=(*layer_path(surface, layer.id), *where), value=value, label=label, gesture=gesture)


def set_setting(surface: Surface, layer: Layer, where: tuple[str, ...], name: str, value: Any) -> AnyCommand:
    """One value of a declared setting within a layer."""
    setting: Setting = fetch(layer, where)
    label = find(setting.op).params[name].label.lower() if setting.op in REGISTRY else name
    return set_in_layer(
        surface,
        layer,
        (*where, "values"),
        {**setting.values, name: value},
        f"Set {label}",
        gesture=f"{layer.id}-{where}-{name}",
    )


def add_rule(surface: Surface, layer: Layer, op: str, *, mode: str = "") -> tuple[AnyCommand, Rule]:
    """One more where-rule; a painted one adds, others keep."""
    chosen = mode or ("add" if op == "where.painted" else "keep")
    rule = Rule(
        id=new_id("rule"), mode=chosen, rule=Setting(op=op), recipe=cover_recipe() if op == "where.recipe" else None
    )
    return Insert(path=(*layer_path(surface, layer.id), "where"), item=rule, label="Add a rule"), rule


def add_rules(surface: Surface, layer: Layer, rules: Iterable[Rule], label: str) -> AnyCommand:
    """Several rules below those there are; a preset is such a handful."""
    fresh = tuple(msgspec.structs.replace(rule, id=new_id("rule")) for rule in rules)
    return set_in_layer(surface, layer, ("where",), (*layer.where, *fresh), label)


# Copies -----------------------------------------------------------------------------------------------


class CopiedLayers(msgspec.Struct, frozen=True, kw_only=True):
    """Layers on the clipboard, and the repeat they were made for."""

    brave_tessel_layers: int = 1
    size_mm: tuple[float, float]
    layers: tuple[Layer, ...]


def copied(surface: Surface, ids: Collection[str]) -> str:
    """Layers as text for the clipboard."""
    told = CopiedLayers(size_mm=(surface.width_mm, surface.height_mm), layers=chosen_layers(surface, ids))
    return msgspec.json.encode(told, order="deterministic").decode()


def paste_layers(surface: Surface, text: str, above: str) -> tuple[AnyCommand, Layers]:
    """Layers from the clipboard above another one, as fresh ones.

    Raises
    ------
    NotUnderstoodError
        when the clipboard holds no layers.
    """
    try:
        told = msgspec.json.decode(text.encode(), type=CopiedLayers)
    except (msgspec.DecodeError, msgspec.ValidationError):
        raise NotUnderstoodError("clipboard", value=text[:30], allowed="layers copied here") from None
    fresh = tuple(renewed(layer) for layer in told.layers)
    return _set(
        surface,
        put_in(surface.layers, fresh, above, "above"),
        f"Paste {len(fresh)} layer{'s' if len(fresh) > 1 else ''}",
    ), fresh
