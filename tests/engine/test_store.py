"""The store, whatever is asked of it: history, gestures, what is saved and who is told."""

from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from brave_tessel.core.job.commands import Batch, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.layers import Surface
from brave_tessel.engine.store import Store, same_objects

NAMES = st.sampled_from(["one", "two", "three"])
GESTURES = st.sampled_from(["", "drag", "paint"])


def job():
    return Job(
        id="j",
        surfaces=(
            Surface(id="a", name="A", width_mm=10.0, height_mm=10.0),
            Surface(id="b", name="B", width_mm=10.0, height_mm=10.0),
        ),
    )


class AnyHistory(RuleBasedStateMachine):
    """The store beside a plain list of what it should remember."""

    def __init__(self):
        super().__init__()
        self.store = Store(job())
        self.past, self.future = [("", self.store.job, "")], []
        self.saved = self.store.job
        self.heard = []
        self.store.subscribe(lambda job: job.surfaces[0], self.heard.append)

    @rule(name=NAMES, gesture=GESTURES, surface=st.sampled_from("ab"))
    def change(self, name, gesture, surface):
        before = self.store.job
        command = Set(path=("surfaces", surface, "name"), value=name, label=f"Name {name}", gesture=gesture)
        after = self.store.dispatch(command)
        if before.surface(surface).name == name:
            assert after is before
            return
        label, _job, open_gesture = self.past[-1]
        if gesture and open_gesture == gesture and not self.future:
            self.past[-1] = (f"Name {name}", after, gesture)
        else:
            self.past.append((f"Name {name}", after, gesture))
            self.future = []
        assert label is not None

    @rule()
    def release(self):
        self.store.end_gesture()
        label, here, _gesture = self.past[-1]
        self.past[-1] = (label, here, "")

    @rule()
    def undo(self):
        done = self.store.undo()
        assert done == (len(self.past) > 1)
        if done:
            label, here, _gesture = self.past.pop()
            self.future.append((label, here, ""))

    @rule()
    def redo(self):
        done = self.store.redo()
        assert done == bool(self.future)
        if done:
            label, here, _gesture = self.past[-1]
            self.past[-1] = (label, here, "")
            self.past.append(self.future.pop())

    @rule()
    def save(self):
        self.saved = self.store.job
        self.store.mark_saved(self.saved)

    @invariant()
    def it_is_where_the_list_says(self):
        assert self.store.job is self.past[-1][1]
        assert self.store.undo_label == (self.past[-1][0] if len(self.past) > 1 else "")
        assert self.store.redo_label == (self.future[-1][0] if self.future else "")
        assert self.store.saved == (self.store.job is self.saved)

    @invariant()
    def who_listens_knows_what_is_there(self):
        assert self.heard[-1] is self.store.job.surfaces[0]
        assert all(a is not b for a, b in zip(self.heard, self.heard[1:], strict=False))


AnyHistory.TestCase.settings = settings(max_examples=60, stateful_step_count=40, deadline=None)
TestAnyHistory = AnyHistory.TestCase


@given(st.lists(NAMES, min_size=1, max_size=30))
def test_a_drag_however_long_is_one_step(names):
    store = Store(job())
    first = store.job
    for name in names:
        store.dispatch(Set(path=("surfaces", "a", "name"), value=name, label="x", gesture="drag"))
    store.undo()
    assert store.job is first
    assert not store.undo()


def test_a_batch_is_one_step_and_one_message():
    store, heard = Store(job()), []
    store.subscribe(lambda job: job.surfaces, heard.append)
    commands = tuple(Set(path=("surfaces", id, "name"), value="same", label="") for id in "ab")
    store.dispatch(Batch(commands=commands, label="Both"))
    assert len(heard) == 2
    assert store.undo_label == "Both"
    store.undo()
    assert [surface.name for surface in store.job.surfaces] == ["A", "B"]


def test_several_things_are_followed_and_only_they():
    store, heard = Store(job()), []
    store.subscribe(lambda job: (job.sources, job.palettes), heard.append)
    store.dispatch(Set(path=("surfaces", "a", "name"), value="other", label="x"))
    assert len(heard) == 1
    store.dispatch(Set(path=("name",), value="other", label="x"))
    assert len(heard) == 1


def test_who_changes_the_job_while_being_told_is_told_again():
    store, heard = Store(job()), []

    def follow(surface):
        heard.append(surface.name)
        if surface.name == "one":
            store.dispatch(Set(path=("surfaces", "a", "name"), value="two", label="x"))

    store.subscribe(lambda job: job.surfaces[0], follow)
    store.dispatch(Set(path=("surfaces", "a", "name"), value="one", label="x"))
    assert heard == ["A", "one", "two"]
    assert store.job.surfaces[0].name == "two"


def test_another_job_begins_a_history_of_its_own():
    store = Store(job())
    store.dispatch(Set(path=("name",), value="other", label="x"))
    store.replace(Job(id="k"), saved=False)
    assert not store.undo()
    assert not store.saved
    store.replace(Job(id="l"), saved=True)
    assert store.saved


def test_tuples_are_compared_thing_by_thing():
    one, other = object(), object()
    assert same_objects((one, other), (one, other))
    assert not same_objects((one, other), (other, one))
    assert not same_objects((one,), (one, other))
    assert same_objects(one, one)
    assert not same_objects([one], [one])
