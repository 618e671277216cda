"""What people want to do with layers, as commands: add, move, nest, bundle, copy, paste."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any

import msgspec

from ...core.buildup.kind import KINDS
from ...core.buildup.kinds.bundle import BundleWhat
from ...core.errors import DoesNotFitError, MissingError, NewerJobError, NotUnderstoodError, UnreadableFileError
from ...core.gather.exact import EXACT
from ...core.job.commands import AnyCommand, Insert, Set, fetch
from ...core.job.document import JOB_FORMAT, Job
from ...core.job.layers import Layer, Rule, Surface, every_layer, layer_path, with_held
from ...core.job.nodes import Node, Setting, new_id
from ...core.operation import REGISTRY, find
from ...core.phrases import say, say_count
from ...core.recipe.stock import cover_recipe
from ...core.repeat.mend import closed_size
from ...formats.documents import decode, encode
from ..library.marks_of_use import MARKS_OF_USE, mark_of_use

Layers = tuple[Layer, ...]
MARKS = "Marks of use"
"""The group of *Lay on* with the library's marks."""


def layer_kinds(job: Job, surface: Surface | None = None) -> dict[str, list[str]]:
    """What can be laid on, by name, in groups."""
    groups: dict[str, list[str]] = {name: [] for name in ("Recipe", "Source", "Surface", "Decal", "Special")}
    for kind in KINDS.values():
        groups.setdefault(kind.group, []).extend(kind.offers(job, surface))
    groups["Special"].sort()
    return {**groups, MARKS: list(MARKS_OF_USE)}


def lay_on(
    job: Job, surface: Surface, group: str, kind: str, *, above: str = "", hatch: str = "slant"
) -> tuple[AnyCommand, Layer]:
    """A new layer of a kind above another, in the same bundle, or on top."""
    layer = _made(job, surface, group, kind, hatch)
    return Set(
        path=("surfaces", surface.id, "layers"),
        value=put_in(surface.layers, (layer,), above, "above"),
        label=say("Lay on {name}", name=layer.name.lower()),
    ), layer


RIDE = Setting(op="seat.by_height", values={"level": 0.5, "feather": 0.3, "drape": 1.0})
OVER = Setting(op="seat.over", values={"drape": 1.0})


def _made(job: Job, surface: Surface, group: str, name: str, hatch: str) -> Layer:
    if group == MARKS:
        return msgspec.structs.replace(renewed(mark_of_use(name)), hatch=hatch)
    offering = (entry for entry in KINDS.values() if entry.group == group and name in entry.offers(job, surface))
    kind = next(offering, None)
    if kind is None:
        raise MissingError("kind of layer", value=name, allowed=", ".join(layer_kinds(job, surface)[group]))
    return Layer(
        id=new_id("layer"),
        name=kind.layer_name(name),
        what=kind.fresh(job, surface, name),
        hatch=kind.hatch or hatch,
        seat=RIDE if kind.rides else OVER,
    )


# The tree ---------------------------------------------------------------------------------------------


def take_out(layers: Layers, ids: Collection[str]) -> tuple[Layers, Layers]:
    """The layers without some, and those; a bundle that goes takes what is in it along."""
    rest: list[Layer] = []
    taken: list[Layer] = []
    for layer in layers:
        if layer.id in ids:
            taken.append(layer)
            continue
        if layer.what.holds:
            inner, out = take_out(layer.what.held(), ids)
            taken += out
            layer = with_held(layer, inner)
        rest.append(layer)
    return tuple(rest), tuple(taken)


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
            if where == "into" and layer.what.holds:
                made.append(with_held(layer, (*layer.what.held(), *fresh)))
            else:
                made += [*fresh, layer] if where == "below" else [layer, *fresh]
            continue
        if layer.what.holds and not found:
            inner, found = _put(layer.what.held(), fresh, target, where)
            layer = with_held(layer, inner)
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
    return _set(
        surface,
        rest,
        say("Take out {name}", name=taken[0].name)
        if len(taken) == 1
        else say("Take out {count} layers", count=len(taken)),
    )


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
        surface,
        put_in(surface.layers, twins, top, "above"),
        say("Duplicate {name}", name=twins[-1].name.removesuffix(" copy")),
    ), twins


def bundle_layers(surface: Surface, ids: Collection[str], *, name: str = "Bundle") -> tuple[AnyCommand, Layer]:
    """Layers held together in a bundle, where the topmost of them was."""
    refuse_locked(surface, ids)
    taken = chosen_layers(surface, ids)
    bundle = Layer(id=new_id("layer"), name=name, what=BundleWhat(layers=taken), hatch=taken[-1].hatch, seat=OVER)
    marked = put_in(surface.layers, (bundle,), taken[-1].id, "above")
    return _set(surface, _without(marked, {layer.id for layer in taken}, bundle.id), "Bundle layers"), bundle


def _without(layers: Layers, ids: Collection[str], kept: str) -> Layers:
    """Layers taken out except within one bundle."""
    rest = []
    for layer in layers:
        if layer.id == kept:
            rest.append(layer)
        elif layer.id not in ids:
            rest.append(with_held(layer, _without(layer.what.held(), ids, kept)) if layer.what.holds else layer)
    return tuple(rest)


def unbundle(surface: Surface, bundle: Layer) -> AnyCommand:
    """The layers of a bundle in its place."""
    placed = put_in(surface.layers, bundle.what.held(), bundle.id, "above")
    return _set(surface, _drop_one(placed, bundle.id), say("Open {name}", name=bundle.name))


def _drop_one(layers: Layers, id: str) -> Layers:
    made = []
    for layer in layers:
        if layer.id != id:
            made.append(with_held(layer, _drop_one(layer.what.held(), id)) if layer.what.holds else layer)
    return tuple(made)


def renewed(layer: Layer) -> Layer:
    """The same layer with fresh ids for itself, what is in it and its rules; rules that look at one another follow."""
    names = {inner.id: new_id("layer") for inner, _ in every_layer((layer,))}

    def again(one: Layer) -> Layer:
        rules = tuple(
            msgspec.structs.replace(rule, id=new_id("rule"), rule=_pointing(rule.rule, names)) for rule in one.where
        )
        fresh = msgspec.structs.replace(one, id=names[one.id], where=rules)
        return with_held(fresh, tuple(again(inner) for inner in one.what.held())) if one.what.holds else fresh

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
        say("Set {label}", label=label),
        gesture=f"{layer.id}-{where}-{name}",
    )


def read_picture(job: Job, surface: Surface, layer: Layer, rule: Rule, source: str) -> AnyCommand:
    """Another picture for a rule; where its real size is known, in as many whole repeats as bring it nearest to it."""
    label = find(rule.rule.op).params["source"].label.lower()
    return _rule_values(surface, layer, rule, {"source": source, **own_repeats(job, surface, source)}, f"Set {label}")


def at_own_size(job: Job, surface: Surface, layer: Layer, rule: Rule) -> AnyCommand:
    """The repeats of a rule's picture that bring it nearest to its real size."""
    repeats = own_repeats(job, surface, str(rule.rule.value("source")))
    return _rule_values(surface, layer, rule, repeats, "Lay at its own size")


def own_repeats(job: Job, surface: Surface, source: str) -> dict[str, int]:
    """Whole repeats across and up that bring a picture nearest to its real size; nothing where that is not known."""
    found = next((one for one in job.sources if one.id == source), None)
    if found is None or not found.sized:
        return {}
    frame = found.straightening
    # What is used exactly as the file has it is not mended first.
    size = (frame.width_mm, frame.height_mm) if found.role in EXACT and frame.sized else closed_size(found)
    if min(size) <= 0:
        return {}
    across, up = (
        min(64, max(1, round(whole / own)))
        for whole, own in zip((surface.width_mm, surface.height_mm), size, strict=True)
    )
    return {"across": across, "up": up}


def _rule_values(surface: Surface, layer: Layer, rule: Rule, values: dict[str, Any], label: str) -> AnyCommand:
    known = rule.rule.operation.params
    kept = {**rule.rule.values, **{name: value for name, value in values.items() if name in known}}
    return set_in_layer(surface, layer, ("where", rule.id, "rule", "values"), kept, label)


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


class CopiedLayers(Node, frozen=True, kw_only=True):
    """Layers on the clipboard, and the repeat they were made for."""

    format: int = JOB_FORMAT
    size_mm: tuple[float, float]
    layers: tuple[Layer, ...]


def copied(surface: Surface, ids: Collection[str]) -> str:
    """Layers as text for the clipboard."""
    told = CopiedLayers(size_mm=(surface.width_mm, surface.height_mm), layers=chosen_layers(surface, ids))
    return encode(told).decode()


def paste_layers(surface: Surface, text: str, above: str) -> tuple[AnyCommand, Layers]:
    """Layers from the clipboard above another one, as fresh ones.

    Raises
    ------
    NotUnderstoodError
        when the clipboard holds no layers.
    """
    try:
        told = decode(text.encode(), CopiedLayers, "clipboard", "layers copied here")
    except (UnreadableFileError, NewerJobError):
        raise NotUnderstoodError("clipboard", value=text[:30], allowed="layers copied here") from None
    fresh = tuple(renewed(layer) for layer in told.layers)
    many = say_count(len(fresh), "{n} layer", "{n} layers")
    return _set(surface, put_in(surface.layers, fresh, above, "above"), say("Paste {many}", many=many)), fresh
