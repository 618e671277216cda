"""Kits: saved pieces of a build-up that adapt to the surface they are dropped on."""

from __future__ import annotations

from collections.abc import Collection, Iterator

import msgspec

from ...core.buildup.kinds.bundle import BundleWhat
from ...core.errors import UnreadableFileError
from ...core.job.commands import AnyCommand, Set
from ...core.job.document import JOB_FORMAT, Job
from ...core.job.layers import Layer, Rule, Surface, every_layer, with_held
from ...core.job.nodes import Node, Setting, new_id
from ...core.operation import REGISTRY
from ...core.phrases import say
from ...formats.documents import decode, encode
from ..intents.layers import chosen_layers, put_in, renewed


class Kit(Node, frozen=True, kw_only=True):
    """Layers with their rules, from the bottom up; the repeat they were made on, mm; dials to keep open: a layer's id,
    the way to a setting in it, a name.
    """

    format: int = JOB_FORMAT
    name: str
    note: str = ""
    tags: tuple[str, ...] = ()
    size_mm: tuple[float, float] = (600.0, 600.0)
    layers: tuple[Layer, ...] = ()
    dials: tuple[tuple[str, ...], ...] = ()


def encode_kit(kit: Kit) -> bytes:
    """A kit as readable JSON."""
    return encode(kit)


def decode_kit(data: bytes, name: str) -> Kit:
    """A kit from JSON.

    Raises
    ------
    UnreadableFileError
        when it is none.
    NewerJobError
        when it is from a later version.
    """
    kit = decode(data, Kit, name, "a kit as this program writes it")
    if not kit.layers or not kit.name.strip():
        raise UnreadableFileError(
            name, value=say("{count} layers", count=len(kit.layers)), allowed="a kit with a name and layers"
        )
    return kit


def kit_of(surface: Surface, ids: Collection[str], name: str, *, tags: tuple[str, ...] = (), note: str = "") -> Kit:
    """A kit of some layers; a bundle's kept dials stay open."""
    layers = chosen_layers(surface, ids)
    dials = tuple(dial for layer in layers if isinstance(layer.what, BundleWhat) for dial in layer.what.dials)
    if len(layers) == 1 and isinstance(layers[0].what, BundleWhat):
        layers = layers[0].what.layers
    return Kit(
        name=name,
        note=note,
        tags=tags,
        size_mm=(surface.width_mm, surface.height_mm),
        layers=layers,
        dials=dials or proposed_dials(layers),
    )


def proposed_dials(layers: tuple[Layer, ...]) -> tuple[tuple[str, ...], ...]:
    """What is worth turning: how much of each layer lies there."""
    dials: list[tuple[str, ...]] = []
    for layer in layers:
        for rule in layer.where:
            name = next(
                (
                    n
                    for n in ("cover", "depth", "height", "share")
                    if rule.rule.op in REGISTRY and n in REGISTRY[rule.rule.op].params
                ),
                "",
            )
            if name:
                dials.append((layer.id, "where", rule.id, "rule", name))
                break
    return tuple(dials[:4])


def drop_kit(job: Job, surface: Surface, kit: Kit, *, above: str = "") -> tuple[AnyCommand, Layer, list[str]]:
    """A kit as a bundle on a surface, and what of it could not be bound there, in sentences.

    Its rules look at the new relief; lengths stay true. What refers to a source, surface or layer that is not here is
    kept but hidden.
    """
    held = Layer(id="kit", name=kit.name, what=BundleWhat(layers=kit.layers, dials=kit.dials), kit=kit.name)
    fresh = renewed(held)
    assert isinstance(fresh.what, BundleWhat)
    names = dict(
        zip(
            (layer.id for layer, _ in every_layer((held,))),
            (layer.id for layer, _ in every_layer((fresh,))),
            strict=True,
        )
    )
    rules = dict(zip(_rule_ids(held), _rule_ids(fresh), strict=True))
    dials = tuple(tuple(rules.get(part, names.get(part, part)) for part in dial) for dial in kit.dials)
    told: list[str] = []
    known = {layer.id for layer, _ in every_layer((fresh,))} | {layer.id for layer, _ in every_layer(surface.layers)}
    layers = tuple(_bound(layer, job, surface, known, told) for layer in fresh.what.layers)
    bundle = msgspec.structs.replace(
        fresh,
        id=new_id("layer"),
        what=msgspec.structs.replace(fresh.what, layers=layers, dials=dials),
        hatch=layers[-1].hatch,
        seat=Setting(op="seat.over"),
    )
    command = Set(
        path=("surfaces", surface.id, "layers"),
        value=put_in(surface.layers, (bundle,), above, "above"),
        label=say("Drop {name}", name=kit.name),
    )
    return command, bundle, told


def _rule_ids(layer: Layer) -> list[str]:
    return [rule.id for entry, _ in every_layer((layer,)) for rule in entry.where]


def _bound(layer: Layer, job: Job, surface: Surface, known: set[str], told: list[str]) -> Layer:
    """A kit's layer with what is missing here hidden and told."""
    if layer.what.holds:
        inner = tuple(_bound(entry, job, surface, known, told) for entry in layer.what.held())
        return with_held(layer, inner)
    refers = layer.what.refers()
    missing = ""
    if not {source.id for source in job.sources}.issuperset(refers.sources):
        missing = "its source"
    elif not {other.id for other in job.surfaces if other.id != surface.id}.issuperset(refers.surfaces):
        missing = "its surface"
    if missing:
        told.append(say("{name} is hidden: {missing} is not in this job.", name=layer.name, missing=missing))
    where = tuple(_rule_bound(rule, layer, job, known, told) for rule in layer.where)
    return msgspec.structs.replace(layer, shown=layer.shown and not missing, where=where)


def _rule_bound(rule: Rule, layer: Layer, job: Job, known: set[str], told: list[str]) -> Rule:
    for name, value in _references(rule.rule):
        if (name == "layer" and value not in known) or (
            name == "source" and not any(s.id == value for s in job.sources)
        ):
            told.append(
                say("A rule of {name} is hidden: the {name_2} it looks at is not here.", name=layer.name, name_2=name)
            )
            return msgspec.structs.replace(rule, shown=False)
    return rule


def _references(setting: Setting) -> Iterator[tuple[str, str]]:
    for name, param in (REGISTRY[setting.op].params if setting.op in REGISTRY else {}).items():
        value = str(setting.values.get(name, param.default))
        if param.kind in {"layer", "source"} and value:
            yield param.kind, value


def combined(first: Layer, second: Layer) -> Layer:
    """Two bundles in one with a mix dial, the first beneath."""
    inner = (renewed(first), renewed(second))
    return Layer(
        id=new_id("layer"),
        name=f"{first.name} and {second.name}",
        what=BundleWhat(layers=inner, mix=0.5),
        seat=Setting(op="seat.over"),
        hatch=first.hatch,
    )
