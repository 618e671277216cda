"""What every declared kind of layer keeps: its form leads to values it has, its handles move what they say."""

import msgspec
import pytest

from brave_tessel.core.buildup import form_rows as rows
from brave_tessel.core.buildup.handles import Moved
from brave_tessel.core.buildup.kind import KINDS, kind_of, tag_of
from brave_tessel.core.job.commands import Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Layer, Surface, UnknownWhat, every_layer, layer_path
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.maps import BLENDED
from brave_tessel.core.operation import REGISTRY, family
from brave_tessel.core.plan.planner import Planner
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.session import Session
from brave_tessel.formats.lettering import letters

SURFACE = Surface(id="s", name="S", width_mm=600.0, height_mm=450.0)


def fresh_layers(job):
    """A fresh layer of every name that every kind offers."""
    made = []
    for tag, kind in KINDS.items():
        for name in kind.offers(job, SURFACE):
            what = kind.fresh(job, SURFACE, name)
            made.append((f"{tag}: {name}", Layer(id="l", name=kind.layer_name(name), what=what)))
    return made


@pytest.fixture(scope="module")
def everything(demo):
    """Every layer of the demo and a fresh one of every kind, each with the job and the surface it lies in."""
    found = [(layer, surface) for surface in demo.job.surfaces for layer, _way in every_layer(surface.layers)]
    return demo.job, found + [(layer, SURFACE) for _name, layer in fresh_layers(demo.job)]


def flat(form):
    """The rows of a form, those within others too."""
    for row in form:
        yield row
        yield from flat(getattr(row, "rows", ()))


def value_at(layer, where):
    """What lies at a place within a layer."""
    here = layer
    for name in where:
        if isinstance(here, dict):
            here = here[name]
        elif isinstance(here, tuple):
            here = next(item for item in here if item.id == name)
        else:
            here = getattr(here, name)
    return here


def test_every_kind_is_met_in_the_demo_or_fresh(everything):
    _job, layers = everything
    met = {tag_of(type(layer.what)) for layer, _surface in layers}
    assert met == set(KINDS) - {"unknown"}


def test_every_form_leads_to_values_the_layer_has(everything):
    job, layers = everything
    seen = set()
    for layer, surface in layers:
        for row in flat(kind_of(layer.what).form(job, surface, layer)):
            seen.add(type(row))
            if isinstance(row, rows.Field | rows.Choose | rows.Flag):
                value = value_at(layer, row.where)
                if isinstance(row, rows.Field):
                    row.param.check(value)
                if isinstance(row, rows.Choose):
                    assert value.op in {entry.id for entry in family(row.family)}
            if isinstance(row, rows.Dials):
                setting = value_at(layer, row.where)
                assert isinstance(setting, Setting)
                assert setting.op == row.op
                assert set(row.only or ()) <= set(REGISTRY[row.op].params)
            if isinstance(row, rows.StepDials):
                assert row.op in REGISTRY
            if isinstance(row, rows.Note):
                text = row.text if isinstance(row.text, str) else row.text(surface, layer)
                assert isinstance(text, str)
    assert seen >= {rows.Note, rows.Field, rows.Dials}


def test_the_keys_of_a_form_stay_when_numbers_change_and_can_be_compared(everything):
    job, layers = everything
    for layer, surface in layers:
        kind = kind_of(layer.what)
        keys = [row.key for row in kind.form(job, surface, layer)]
        again = [row.key for row in kind.form(job, surface, msgspec.structs.replace(layer, name="Renamed"))]
        assert keys == again
        assert len({hash(key) for key in keys}) <= len(keys)


def test_what_an_action_of_a_form_changes_can_be_carried_out(everything):
    job, layers = everything
    carried = 0
    for layer, surface in layers:
        if surface is SURFACE:
            surface = msgspec.structs.replace(SURFACE, layers=(layer,))
            job = msgspec.structs.replace(job, surfaces=(*(s for s in job.surfaces if s.id != "s"), surface))
        for row in flat(kind_of(layer.what).form(job, surface, layer)):
            if not isinstance(row, rows.Act) or row.change is None:
                continue
            change = row.change(job, surface, layer)
            if change is None:
                continue
            path = ("surfaces", surface.id, *layer_path(surface, layer.id)[2:], *change.where)
            after = Set(path=path, value=change.value, label=change.label).apply(job)
            assert after.surface(surface.id) is not surface
            carried += 1
    assert carried > 0


def test_a_handle_dragged_to_where_it_is_changes_next_to_nothing(everything):
    _job, layers = everything
    dragged = 0
    for layer, surface in layers:
        kind = kind_of(layer.what)
        for handle in kind.handles(surface, layer.what).handles:
            change = kind.moved(surface, layer.what, handle.name, (handle.x, handle.y), False)
            if change is None:
                continue
            assert isinstance(change, Moved)
            before = value_at(layer, change.where)
            numbers = [float(v) for v in numbers_in(before)], [float(v) for v in numbers_in(change.value)]
            assert numbers[1] == pytest.approx(numbers[0], abs=0.6)
            dragged += 1
    assert dragged > 10


def numbers_in(value):
    if isinstance(value, bool | str) or value is None:
        return
    if isinstance(value, int | float):
        yield value
    elif isinstance(value, dict):
        for name in sorted(value):
            yield from numbers_in(value[name])
    elif isinstance(value, tuple | list):
        for item in value:
            yield from numbers_in(item)
    elif isinstance(value, msgspec.Struct):
        for name in value.__struct_fields__:
            yield from numbers_in(getattr(value, name))


def test_a_handle_moves_with_the_hand(everything):
    """Dragged by so much, the handle is so much further afterwards (points and middles; corners may keep a shape)."""
    _job, layers = everything
    for layer, surface in layers:
        kind = kind_of(layer.what)
        for handle in kind.handles(surface, layer.what).handles:
            if handle.kind not in {"point", "middle"}:
                continue
            to = (handle.x + 12.0, handle.y - 7.0)
            change = kind.moved(surface, layer.what, handle.name, to, False)
            if change is None:
                continue
            assert change.where[0] == "what"
            what = _put(layer.what, change.where[1:], change.value)
            after = {h.name: (h.x, h.y) for h in kind.handles(surface, what).handles}
            assert after[handle.name] == pytest.approx(to, abs=0.1), (layer.name, handle.name)


def _put(node, where, value):
    if not where:
        return value
    name, *rest = where
    return msgspec.structs.replace(node, **{name: _put(getattr(node, name), rest, value)})


def test_names_do_not_matter_to_a_picture_and_values_do(everything, demo_session):
    """Keys are content: a layer renamed or marked otherwise is worked out from the same tasks."""
    job, layers = everything
    snapshot = demo_session.snapshot()
    for layer, surface in layers:
        if surface is SURFACE:
            surface = msgspec.structs.replace(SURFACE, layers=(layer,))
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, 64)
        path = ("surfaces", surface.id, *layer_path(surface, layer.id)[2:])
        known = job if surface.id != "s" else msgspec.structs.replace(job, surfaces=(*job.surfaces, surface))
        renamed = Set(path=(*path, "name"), value="Renamed", label="x").apply(known)
        hidden = Set(path=(*path, "shown"), value=not layer.shown, label="x").apply(known)
        keys = [
            Planner(one, snapshot.load_pixels, snapshot.load_codes, snapshot.load_model, letters)
            .finished(one.surface(surface.id), grid)
            .key
            for one in (known, renamed, hidden)
        ]
        assert keys[0] == keys[1], layer.name
        if len(surface.layers) > 1 and layer.id in {item.id for item in surface.layers}:
            assert keys[0] != keys[2], layer.name


@pytest.mark.parametrize("tag", sorted(KINDS))
def test_a_kind_says_all_that_a_list_and_a_card_need(tag):
    kind = KINDS[tag]
    assert kind.label
    assert kind.label[0].isupper()
    assert kind.__doc__
    assert kind_of_struct(kind) is kind


def kind_of_struct(kind):
    return KINDS[tag_of(kind.struct)]


@pytest.mark.parametrize("tag", sorted(set(KINDS) - {"unknown"}))
def test_an_offered_name_is_offered_once(tag):
    offered = KINDS[tag].offers(Job(), SURFACE)
    assert len(offered) == len(set(offered))
    assert all(name == name.strip() and name for name in offered)


def test_an_unknown_kind_is_not_offered():
    assert KINDS["unknown"].offers(Job(), SURFACE) == []
    layer = Layer(id="l", name="L", what=UnknownWhat(kept={"type": "hologram"}))
    assert "hologram" in kind_of(layer.what).describe(layer)


def test_fresh_layers_can_be_worked_out(demo):
    """Each alone on a small sheet, without a fault but for what needs something of the job first."""
    session = Session(demo)
    for name, layer in fresh_layers(demo.job):
        surface = msgspec.structs.replace(SURFACE, layers=(layer,))
        job = msgspec.structs.replace(demo.job, surfaces=(*demo.job.surfaces, surface))
        snapshot = session.snapshot().with_job(job)
        run = snapshot.evaluation()
        maps = snapshot.finished(surface, 48, evaluation=run)
        assert run.faults == {}, name
        assert set(maps.maps) >= set(BLENDED[:2]), name
