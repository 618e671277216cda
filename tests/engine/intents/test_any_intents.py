"""Whatever is done in whatever order, the job stays sound, is taken back to its start and comes back from its file."""

import msgspec
import pytest
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from brave_tessel.core import registered  # noqa: F401 - declares the kinds
from brave_tessel.core.buildup.kind import kind_of
from brave_tessel.core.errors import TesselError
from brave_tessel.core.job.commands import Remove, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import every_layer, layer_of
from brave_tessel.core.job.nodes import Setting
from brave_tessel.core.operation import family
from brave_tessel.core.place.site import site_of
from brave_tessel.core.plan.planner import Planner
from brave_tessel.core.recipe.materials import MATERIALS
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.intents import layers as layer_intents
from brave_tessel.engine.intents import scene as scene_intents
from brave_tessel.engine.intents import surfaces as surface_intents
from brave_tessel.engine.place.starters import room_corner
from brave_tessel.engine.store import Store
from brave_tessel.formats.documents import decode_job, encode_job
from brave_tessel.formats.lettering import letters

PICK = st.integers(0, 10_000)


def no_pixels(_blob):
    raise AssertionError("nothing here has pictures")


class AnyIntents(RuleBasedStateMachine):
    """A person without a plan."""

    def __init__(self):
        super().__init__()
        self.store = Store(Job(id="j"))
        self.first = self.store.job
        self.steps = 0
        self.marks = [self.store.job]

    # What there is --------------------------------------------------------------------------------

    @property
    def job(self):
        return self.store.job

    def surface(self, pick):
        return self.job.surfaces[pick % len(self.job.surfaces)] if self.job.surfaces else None

    def layer(self, surface, pick):
        every = [layer for layer, _way in every_layer(surface.layers)] if surface else []
        return every[pick % len(every)] if every else None

    def dispatch(self, command):
        before = self.job
        self.store.dispatch(command)
        if self.job is not before:
            self.steps += 1
            self.marks.append(self.job)

    # What a person does -------------------------------------------------------------------------

    @rule(pick=PICK)
    def make_a_surface(self, pick):
        if len(self.job.surfaces) > 3:
            return
        if pick % 2:
            command, _ = surface_intents.new_surface(self.job)
        else:
            command, _ = surface_intents.surface_from_stock(self.job, MATERIALS[pick % len(MATERIALS)].name)
        self.dispatch(command)

    @rule(pick=PICK)
    def take_a_surface_out(self, pick):
        surface = self.surface(pick)
        if surface:
            self.dispatch(Remove(path=("surfaces", surface.id), label="Take out"))

    @rule(pick=PICK)
    def lay_on(self, pick):
        surface = self.surface(pick)
        if surface is None:
            return
        offered = [(g, n) for g, names in layer_intents.layer_kinds(self.job, surface).items() for n in names]
        group, name = offered[pick % len(offered)]
        above = self.layer(surface, pick // 7)
        try:
            command, _ = layer_intents.lay_on(self.job, surface, group, name, above=above.id if above else "")
        except TesselError:
            return
        self.dispatch(command)

    @rule(pick=PICK)
    def take_a_layer_out(self, pick):
        surface = self.surface(pick)
        layer = self.layer(surface, pick // 3)
        if layer:
            self.dispatch(layer_intents.remove_layers(surface, (layer.id,)))

    @rule(pick=PICK)
    def duplicate(self, pick):
        surface = self.surface(pick)
        layer = self.layer(surface, pick // 3)
        if layer and sum(1 for _ in every_layer(surface.layers)) < 12:
            command, _ = layer_intents.duplicate_layers(surface, (layer.id,))
            self.dispatch(command)

    @rule(pick=PICK)
    def bundle_or_unbundle(self, pick):
        surface = self.surface(pick)
        layer = self.layer(surface, pick // 3)
        if layer is None:
            return
        if layer.what.held():
            self.dispatch(layer_intents.unbundle(surface, layer))
        else:
            command, _ = layer_intents.bundle_layers(surface, (layer.id,))
            self.dispatch(command)

    @rule(pick=PICK, where=st.sampled_from(["above", "below", "into"]))
    def move(self, pick, where):
        surface = self.surface(pick)
        layer, target = self.layer(surface, pick // 3), self.layer(surface, pick // 11)
        if layer is None or target is None or (where == "into" and not target.what.holds):
            return
        try:
            self.dispatch(layer_intents.move_layers(surface, (layer.id,), target.id, where))
        except TesselError:
            assert target.id == layer.id or target.id in {inner.id for inner, _ in every_layer(layer.what.held())}

    @rule(pick=PICK)
    def add_a_rule(self, pick):
        surface = self.surface(pick)
        layer = self.layer(surface, pick // 3)
        rules = [entry.id for entry in family("where")]
        if layer and len(layer.where) < 4:
            command, _ = layer_intents.add_rule(surface, layer, rules[pick % len(rules)])
            self.dispatch(command)

    @rule(pick=PICK)
    def copy_and_paste(self, pick):
        source, target = self.surface(pick), self.surface(pick // 5)
        layer = self.layer(source, pick // 3)
        if layer is None or sum(1 for _ in every_layer(target.layers)) > 11:
            return
        text = layer_intents.copied(source, (layer.id,))
        above = self.layer(target, pick // 13)
        command, _ = layer_intents.paste_layers(target, text, above.id if above else "")
        self.dispatch(command)

    @rule(pick=PICK)
    def hide(self, pick):
        surface = self.surface(pick)
        layer = self.layer(surface, pick // 3)
        if layer:
            self.dispatch(layer_intents.set_in_layer(surface, layer, ("shown",), not layer.shown, "Hide"))

    @rule(pick=PICK)
    def lay_on_a_part(self, pick):
        if not self.job.scene.parts:
            self.dispatch(scene_intents.replace_scene(room_corner([s.id for s in self.job.surfaces]), "put up"))
            return
        surface = self.surface(pick)
        part = self.job.scene.parts[pick % len(self.job.scene.parts)]
        groups = ("front",) if pick % 2 else ()
        found = scene_intents.lay(self.job, part.id, surface.id if surface else "", groups=groups)
        if found:
            self.dispatch(found[0])

    @rule(pick=PICK)
    def work_on_parts(self, pick):
        parts = self.job.scene.parts
        if not parts:
            return
        part, other = parts[pick % len(parts)], parts[(pick // 7) % len(parts)]
        commands = [
            scene_intents.show_parts([part.id], bool(pick % 2)),
            scene_intents.isolate(self.job, [part.id]),
            scene_intents.place_part(part.id, at=(float(pick % 900), 1.0, 2.0), turn=(0.0, 0.0, float(pick % 360))),
            scene_intents.mirror_part(part),
            scene_intents.set_copies(part.id, Setting(op="copies.row") if pick % 3 else None),
            scene_intents.move_part(self.job, part.id, other.id, ("above", "below", "into")[pick % 3]),
            (scene_intents.group_parts(self.job, [part.id, other.id]) or (None,))[0],
            scene_intents.ungroup(self.job, part.id),
            (scene_intents.duplicate(self.job, part.id) or (None,))[0],
            scene_intents.remove_parts(self.job, [part.id]) if len(parts) > 30 else None,
            scene_intents.add_piece("made.arch", (0.0, 0.0, 0.0), parent=other.id)[0],
            scene_intents.add_level("sill", float(pick % 3000)),
        ]
        command = commands[pick % len(commands)]
        if command is not None:
            self.dispatch(command)
            site_of(self.job)

    @rule()
    def undo_and_redo(self):
        now = self.job
        if self.store.undo():
            assert self.job is not now
            assert self.store.redo()
            assert self.job is now

    # What is always so ----------------------------------------------------------------------------

    @invariant()
    def ids_are_their_own(self):
        for surface in self.job.surfaces:
            ids = [layer.id for layer, _way in every_layer(surface.layers)]
            assert len(ids) == len(set(ids))
            for layer, _way in every_layer(surface.layers):
                assert layer_of(surface, layer.id) is layer
                rules = [entry.id for entry in layer.where]
                assert len(rules) == len(set(rules))

    @invariant()
    def it_comes_back_from_its_file(self):
        assert decode_job(encode_job(self.job)) == self.job

    @invariant()
    def it_can_be_planned(self):
        for surface in self.job.surfaces:
            grid = Grid.for_repeat(surface.width_mm, surface.height_mm, 32)
            plan = Planner(self.job, no_pixels, load_letters=letters).surface(surface, grid)
            assert len(plan.stacks) == len(surface.layers) + 1
            for layer, _way in every_layer(surface.layers):
                assert kind_of(layer.what).describe(layer) is not None

    def teardown(self):
        undone = 0
        while self.store.undo():
            undone += 1
            assert self.job is self.marks[-1 - undone]
        assert undone == self.steps
        assert self.job is self.first


AnyIntents.TestCase.settings = settings(
    max_examples=12, stateful_step_count=25, deadline=None, suppress_health_check=list(HealthCheck)
)
TestAnyIntents = AnyIntents.TestCase


# Single intents --------------------------------------------------------------------------------------


def test_a_new_surface_has_a_name_of_its_own():
    job = Job()
    names = []
    for _ in range(4):
        command, surface = surface_intents.new_surface(job)
        job = command.apply(job)
        names.append(surface.name)
    assert len(set(names)) == 4


@pytest.mark.parametrize("stock", [entry.name for entry in MATERIALS])
def test_a_stock_surface_is_of_the_size_it_closes_on(stock):
    command, surface = surface_intents.surface_from_stock(Job(), stock)
    job = command.apply(Job())
    assert job.surfaces == (surface,)
    entry = next(entry for entry in MATERIALS if entry.name == stock)
    assert (surface.width_mm, surface.height_mm) == entry.repeat_mm


def test_a_stock_that_is_not_there_is_told_with_those_that_are():
    with pytest.raises(TesselError) as caught:
        surface_intents.surface_from_stock(Job(), "Marzipan")
    assert MATERIALS[0].name in str(caught.value.allowed)


def test_a_repeat_is_set_in_one_step():
    command, surface = surface_intents.new_surface(Job())
    store = Store(command.apply(Job()))
    store.dispatch(surface_intents.set_repeat(surface, 500.00004, 250.0))
    made = store.job.surface(surface.id)
    assert (made.width_mm, made.height_mm) == (500.0, 250.0)
    store.undo()
    assert store.job.surface(surface.id) is surface


def test_a_datum_is_set_and_a_part_is_laid_on():
    job = msgspec.structs.replace(Job(), scene=room_corner())
    store = Store(job)
    store.dispatch(scene_intents.set_datum(job.scene, (1.0, 2.0, 3.0), "left jamb"))
    datum = store.job.scene.main_datum()
    assert (datum.at, datum.name) == ((1.0, 2.0, 3.0), "left jamb")
    command, laid = scene_intents.lay(store.job, "floor", "anything")
    store.dispatch(command)
    assert store.job.scene.part("floor").laid == (laid,)
    store.undo()
    store.undo()
    assert store.job is job


@pytest.mark.parametrize(
    ("part", "groups", "op"),
    [("floor", (), "laying.flat"), ("figure", (), "laying.flat"), ("north-wall", ("dado",), "laying.flat")],
)
def test_a_surface_is_laid_as_suits_the_part(part, groups, op):
    job = msgspec.structs.replace(Job(), scene=room_corner())
    _, laid = scene_intents.lay(job, part, "s", groups=groups)
    assert laid.laying.op == op
    assert scene_intents.lay(job, "no such part", "s") is None


@pytest.mark.parametrize(
    ("op", "expected"),
    [("made.column", "around"), ("made.vault", "around"), ("made.arch", "path"), ("made.tube", "path"),
     ("made.moulding", "path"), ("made.cloth", "unwrapped"), ("made.dome", "around"), ("made.road", "flat")],
)  # fmt: skip
def test_round_things_are_laid_around_and_mouldings_along(op, expected):
    _, part = scene_intents.add_piece(op, (0.0, 0.0, 0.0))
    assert scene_intents.suited(part) == f"laying.{expected}"


def test_what_is_laid_on_the_same_faces_takes_their_place():
    store = Store(msgspec.structs.replace(Job(), scene=room_corner()))
    for surface in ("a", "b"):
        command, _ = scene_intents.lay(store.job, "north-wall", surface, groups=("dado",))
        store.dispatch(command)
    (laid,) = store.job.scene.part("north-wall").laid
    assert laid.surface == "b"
    command, _ = scene_intents.lay(store.job, "north-wall", "c")
    store.dispatch(command)
    assert [one.surface for one in store.job.scene.part("north-wall").laid] == ["c", "b"]


def test_setting_what_is_set_already_leaves_no_step():
    command, surface = surface_intents.new_surface(Job())
    store = Store(command.apply(Job()))
    before = store.job
    store.dispatch(Set(path=("surfaces", surface.id, "name"), value=surface.name, label="Rename"))
    assert store.job is before
    assert not store.undo()
