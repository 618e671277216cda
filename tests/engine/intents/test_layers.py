"""Layers as commands, kits, the library and the simulated catalogue, without a window."""

import msgspec
import pytest

from brave_tessel.core.buildup.kinds.bundle import BundleWhat
from brave_tessel.core.buildup.kinds.plain import PlainWhat
from brave_tessel.core.buildup.kinds.source import SourceWhat
from brave_tessel.core.errors import (
    CancelledError,
    DeviceError,
    DoesNotFitError,
    MissingError,
    NotUnderstoodError,
    UnreadableFileError,
)
from brave_tessel.core.job.commands import fetch
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Rule, Surface, every_layer
from brave_tessel.core.job.nodes import Setting
from brave_tessel.engine.intents import layers as layer_intents
from brave_tessel.engine.library.catalogue import Catalogue
from brave_tessel.engine.library.items import items, keep_kit, kits_in, search
from brave_tessel.engine.library.kits import Kit, combined, decode_kit, drop_kit, encode_kit, kit_of
from brave_tessel.engine.library.marks_of_use import MARKS_OF_USE, PRESETS
from brave_tessel.engine.library.shipped_kits import shipped_kits
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob


def plain(id, *rules):
    return Layer(id=id, name=id, what=PlainWhat(), where=rules)


def after(id, layer):
    return Rule(id=id, rule=Setting(op="where.after", values={"layer": layer}))


def job(*layers):
    return Job(id="j", surfaces=(Surface(id="s", name="S", width_mm=600.0, height_mm=600.0, layers=layers),))


def ids(made):
    return [layer.id for layer, _ in every_layer(made.surfaces[0].layers)]


def apply(made, command):
    return command.apply(made)


def test_everything_in_the_lay_menu_can_be_laid():
    made = job(plain("a"))
    for group, kinds in layer_intents.layer_kinds(made, made.surfaces[0]).items():
        for kind in kinds:
            command, layer = layer_intents.lay_on(made, made.surfaces[0], group, kind, above="a")
            assert ids(apply(made, command))[:2] == ["a", layer.id], (group, kind)


def test_renewed_layers_have_fresh_ids_and_rules_that_follow():
    bundle = Layer(id="b", name="b", what=BundleWhat(layers=(plain("x"), plain("y", after("r", "x")))))
    fresh = layer_intents.renewed(bundle)
    old = {layer.id for layer, _ in every_layer((bundle,))}
    assert old.isdisjoint(layer.id for layer, _ in every_layer((fresh,)))
    assert fresh.what.layers[1].where[0].rule.values["layer"] == fresh.what.layers[0].id
    outside = layer_intents.renewed(plain("z", after("r", "elsewhere")))
    assert outside.where[0].rule.values["layer"] == "elsewhere"


def test_duplicating_bundling_and_moving_keep_every_layer():
    made = job(plain("a"), plain("b"), plain("c"))
    command, twins = layer_intents.duplicate_layers(made.surfaces[0], ("a", "b"))
    assert ids(apply(made, command)) == ["a", "b", *[t.id for t in twins], "c"]
    command, bundle = layer_intents.bundle_layers(made.surfaces[0], ("a", "c"))
    bundled = apply(made, command)
    assert ids(bundled) == ["b", bundle.id, "a", "c"]
    moved = apply(bundled, layer_intents.move_layers(bundled.surfaces[0], ("b",), "a", "below"))
    assert ids(moved) == [bundle.id, "b", "a", "c"]
    out = apply(moved, layer_intents.move_layers(moved.surfaces[0], ("c",), bundle.id, "below"))
    assert ids(out) == ["c", bundle.id, "b", "a"]
    with pytest.raises(DoesNotFitError):
        layer_intents.move_layers(out.surfaces[0], (bundle.id,), "a", "above")
    opened = apply(
        out, layer_intents.unbundle(out.surfaces[0], next(x for x in out.surfaces[0].layers if x.id == bundle.id))
    )
    assert ids(opened) == ["c", "b", "a"]


def test_a_locked_layer_is_neither_moved_nor_taken_out():
    made = job(plain("a"), msgspec.structs.replace(plain("b"), locked=True))
    for change in (
        layer_intents.remove_layers,
        lambda s, i: layer_intents.move_layers(s, i, "a", "below"),
        layer_intents.bundle_layers,
    ):
        with pytest.raises(DoesNotFitError, match="b"):
            change(made.surfaces[0], ("b",))


def test_copies_survive_the_clipboard_and_other_text_is_refused():
    made = job(plain("a", after("r", "b")), plain("b"))
    text = layer_intents.copied(made.surfaces[0], ("a", "b"))
    command, fresh = layer_intents.paste_layers(made.surfaces[0], text, "b")
    assert ids(apply(made, command)) == ["a", "b", *[layer.id for layer in fresh]]
    with pytest.raises(NotUnderstoodError):
        layer_intents.paste_layers(made.surfaces[0], "hello", "b")


def test_a_setting_deep_in_a_bundle_is_set_in_its_place():
    bundle = Layer(id="g", name="g", what=BundleWhat(layers=(plain("a"),)))
    made = job(bundle)
    inner = bundle.what.layers[0]
    after_ = apply(made, layer_intents.set_setting(made.surfaces[0], inner, ("seat",), "level", 2.0))
    assert fetch(after_, ("surfaces", "s", "layers", "g", "what", "layers", "a", "seat")).values == {"level": 2.0}


# Kits -----------------------------------------------------------------------------------------------


@pytest.mark.parametrize("kit", shipped_kits(), ids=lambda kit: kit.name)
def test_every_shipped_kit_survives_its_file_and_evaluates(kit):
    assert decode_kit(encode_kit(kit), "x") == kit
    made = job(plain("ground"))
    command, bundle, told = drop_kit(made, made.surfaces[0], kit, above="ground")
    assert told == []
    dropped = apply(made, command)
    session = Session(OpenedJob(dropped))
    run = session.snapshot().evaluation()
    session.snapshot().finished(dropped.surfaces[0], 96, evaluation=run)
    assert run.faults == {}
    for dial in bundle.what.dials:
        *way, name = dial
        assert name in (fetch(bundle, ("what", "layers", *way)).complete())


def test_a_velvet_kit_is_four_layers_of_pile():
    velvet = next(kit for kit in shipped_kits() if kit.name == "Seat velvet")
    assert len(velvet.layers) == 4
    assert len({layer.laying.number("turn") for layer in velvet.layers}) == 4


def test_what_cannot_be_bound_is_hidden_and_told():
    kit = Kit(
        name="k",
        layers=(
            Layer(id="a", name="Photo", what=SourceWhat(source="gone")),
            plain("b", after("r", "elsewhere"), after("r2", "a")),
        ),
    )
    made = job(plain("ground"))
    command, bundle, told = drop_kit(made, made.surfaces[0], kit)
    assert len(told) == 2
    photo, other = bundle.what.layers
    assert not photo.shown
    assert [rule.shown for rule in other.where] == [False, True]
    assert apply(made, command)


def test_a_bundle_is_kept_as_its_layers_and_two_are_mixed():
    bundle = Layer(id="g", name="g", what=BundleWhat(layers=(plain("a"), plain("b")), dials=(("a", "seat", "level"),)))
    made = job(bundle)
    kit = kit_of(made.surfaces[0], ("g",), "Two", tags=("x",))
    assert [layer.id for layer in kit.layers] == ["a", "b"]
    assert kit.dials == (("a", "seat", "level"),)
    mixed = combined(bundle, bundle)
    assert mixed.what.mix == 0.5
    assert len(list(every_layer((mixed,)))) == 7


def test_damaged_kits_are_refused_and_others_still_found(tmp_path):
    keep_kit(tmp_path / "deep" / "er", Kit(name="Good one", layers=(plain("a"),)))
    (tmp_path / "bad.kit.json").write_text("{", encoding="utf-8")
    (tmp_path / "later.kit.json").write_bytes(encode_kit(Kit(name="x", format=9, layers=(plain("a"),))))
    kits, troubles = kits_in(tmp_path)
    assert [kit.name for kit in kits] == ["Good one"]
    assert len(troubles) == 2
    with pytest.raises(UnreadableFileError):
        decode_kit(b"[]", "x")


def test_search_by_words_kind_and_size():
    every = items(job(plain("a")), None)
    assert {item.name for item in search(every, "weather subtle")} == {"Years by the sea"}
    assert {item.kind for item in search(every, kind="recipe")} == {"recipe"}
    assert all(max(item.size_mm) <= 500 for item in search(every, largest_mm=500))
    assert search(every, "no such thing") == []


def test_presets_are_plain_rules_and_marks_of_use_are_subtle():
    for make in PRESETS.values():
        assert all(isinstance(rule, Rule) for rule in make())
    for make in MARKS_OF_USE.values():
        layer = make()
        assert all(mix.strength <= 0.6 for mix in layer.mixes.values())


# Catalogue ------------------------------------------------------------------------------------------


def test_the_catalogue_lists_fetches_and_resumes(tmp_path):
    supplier = Catalogue(tmp_path, seconds=0.0)
    offers = supplier.offers()
    assert len(offers) >= 36
    assert len({offer.number for offer in offers}) == len(offers)
    number = offers[5].number
    supplier.fault = "breaks off"
    with pytest.raises(DeviceError):
        supplier.fetch(number)
    share = supplier.fetched_share(number)
    assert 0.5 < share < 1
    supplier.fault = "none"
    seen = []
    path = supplier.fetch(number, progress=seen.append)
    assert seen[0] > share
    assert seen[-1] == 1
    assert decode_kit(path.read_bytes(), "x").layers
    assert supplier.fetch(number) == path


def test_a_stopped_fetch_and_a_damaged_part_lose_nothing(tmp_path):
    supplier = Catalogue(tmp_path, seconds=0.0)
    number = supplier.offers()[0].number
    with pytest.raises(CancelledError):
        supplier.fetch(number, current=lambda: False)
    (tmp_path / f"{number}.part").write_bytes(b"garbage")
    assert supplier.fetch(number).exists()
    supplier.fault = "not reachable"
    with pytest.raises(DeviceError):
        supplier.offers()
    with pytest.raises(DeviceError):
        supplier.fetch(supplier._item("ST-0101")[0].number) if not supplier.has("ST-0101") else supplier.fetch(
            "ST-0102"
        )
    with pytest.raises(MissingError):
        Catalogue(tmp_path).fetch("XX")


# Merging --------------------------------------------------------------------------------------------


def test_layers_merge_to_a_map_set_and_open_again():
    import numpy as np

    from brave_tessel.core.buildup.kinds.recipe import RecipeWhat
    from brave_tessel.core.maps import MapKind
    from brave_tessel.core.recipe.stock import clouds_recipe, units_recipe
    from brave_tessel.engine.intents.merging import joined_maps, keep_maps, merge_layers, merged_name, open_merged
    from brave_tessel.formats.documents import decode_job, encode_job

    band = Rule(id="r", rule=Setting(op="where.band", values={"at": 300.0, "width": 200.0, "soft": 20.0}))
    tiles = Layer(id="tiles", name="Tiles", what=RecipeWhat(recipe=units_recipe(length=145.0, height=70.0, joint=5.0)))
    wash = Layer(
        id="wash",
        name="Wash",
        what=RecipeWhat(recipe=clouds_recipe(size=60)),
        where=(band,),
        seat=Setting(op="seat.over", values={"drape": 1.0, "level": 0.4}),
    )
    made = job(tiles, wash)
    session = Session(OpenedJob(made))
    surface = made.surfaces[0]
    before = session.snapshot().finished(surface, 512)
    maps = joined_maps(session.snapshot(), surface, surface.layers, px=1024)
    source = keep_maps(session.intake(), surface, merged_name(surface, ("tiles", "wash")), maps)
    command, layer = merge_layers(surface, ("tiles", "wash"), source)
    session.store.dispatch(command)
    merged = session.job.surfaces[0]
    assert [entry.id for entry in merged.layers] == [layer.id]
    assert decode_job(encode_job(session.job)) == session.job
    after_ = session.snapshot().finished(merged, 512)
    for kind, limit in ((MapKind.BASE_COLOUR, 0.02), (MapKind.HEIGHT, 0.08), (MapKind.ROUGHNESS, 0.02)):
        assert np.abs(after_[kind] - before[kind]).mean() < limit, kind
    session.store.dispatch(open_merged(merged, merged.layers[0]))
    assert session.job.surfaces[0].layers == surface.layers
    with pytest.raises(MissingError):
        merge_layers(surface, ("tiles",), source)
