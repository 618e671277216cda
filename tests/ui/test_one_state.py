"""One state for every reader: cards change what is there now, stages not shown do no work."""

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from brave_tessel.core.job.commands import Remove, Set
from brave_tessel.core.job.document import Job
from brave_tessel.core.job.nodes import Setting
from brave_tessel.formats.job_file import OpenedJob


def write(desk, path, value, label="x"):
    desk.dispatch(Set(path=path, value=value, label=label))


TOP = ("surfaces", "s", "layers", "top")


def test_a_cards_change_is_made_from_the_layer_as_it_is_now(build):
    """A width typed elsewhere stays when the card adds a rule to the layer it has shown since before."""
    desk, card = build.desk, build.layer_card
    write(desk, (*TOP, "seat"), Setting(op="seat.by_height", values={"level": 77.0}))
    card.add_rule("where.noise")
    layer = desk.job.surface("s").layers[1]
    assert layer.seat.number("level") == 77.0
    assert [rule.rule.op for rule in layer.where] == ["where.noise"]
    write(desk, (*TOP, "name"), "Renamed")
    card.add_rule("where.height")
    assert desk.job.surface("s").layers[1].name == "Renamed"


def test_undo_takes_back_the_card_too(build, settled):
    card, desk = build.layer_card, build.desk
    before = desk.job
    card.add_rule("where.noise")
    settled(build.window_)
    desk.session.store.undo()
    settled(build.window_)
    assert desk.job is before
    assert card.rules is None or not desk.job.surface("s").layers[1].where


class Counter:
    """Counts calls of a method without hindering it."""

    def __init__(self, monkeypatch, owner, name):
        self.count, before = 0, getattr(owner, name)

        def counted(*args, **more):
            self.count += 1
            return before(*args, **more)

        monkeypatch.setattr(owner, name, counted)


@pytest.mark.parametrize("stage", ["Gather", "Repeat", "Place", "Hand over"])
def test_stages_not_shown_do_no_work(build, settled, monkeypatch, stage):
    """Not even for a change of what they show; they catch up when they are turned to, if they show it."""
    window, desk = build.window_, build.desk
    work = Counter(monkeypatch, window.stages[stage], "show_job")
    settled(window)
    for n in range(3):
        write(desk, (*TOP, "what", "roughness"), 0.1 + 0.1 * n)
        write(desk, ("surfaces", "s", "name"), f"Tiled {n}")
    settled(window)
    assert work.count == 0
    desk.go(stage)
    settled(window)
    assert work.count >= (0 if stage == "Gather" else 1)
    shown = work.count
    desk.go("Build")
    desk.go(stage)
    settled(window)
    assert work.count <= shown + 1


def test_a_change_is_shown_once(build, settled, monkeypatch):
    work = Counter(monkeypatch, build, "show_job")
    write(build.desk, (*TOP, "what", "roughness"), 0.31)
    assert work.count == 1


def test_a_picture_is_of_the_surface_as_it_is(build, settled):
    write(build.desk, (*TOP, "what", "colour"), "#00FF00")
    settled(build.window_)
    assert build.done.surface is build.desk.job.surface("s")
    build.desk.session.store.undo()
    settled(build.window_)
    assert build.done.surface is build.desk.job.surface("s")


def test_opening_another_job_forgets_what_was_asked_of_this_one(build, settled):
    window, desk = build.window_, build.desk
    for n in range(20):
        write(desk, (*TOP, "what", "roughness"), 0.01 * n)
    desk.session.adopt(OpenedJob(Job()), None)
    settled(window)
    assert build.done is None or build.done.surface.id not in {s.id for s in desk.job.surfaces}
    assert desk.selection.surface is None
    assert desk.work.idle


def test_taking_away_what_is_shown_shows_what_is_left(build, settled):
    window, desk = build.window_, build.desk
    desk.dispatch(Remove(path=TOP, label="Take out"))
    settled(window)
    assert desk.selection.layer is None or desk.selection.layer.id == "tiles"
    desk.dispatch(Remove(path=("surfaces", "s"), label="Take out"))
    settled(window)
    assert desk.selection.surface is None
    desk.session.store.undo()
    desk.session.store.undo()
    settled(window)
    assert [layer.id for layer in desk.job.surface("s").layers] == ["tiles", "top"]


def test_names_of_things_that_are_open_may_change_under_a_stage(build, settled):
    write(build.desk, ("surfaces", "s", "name"), "Wall of tiles")
    settled(build.window_)
    assert build.picker.currentText() == "Wall of tiles"


def test_the_busy_mark_goes_when_all_is_done(build, settled):
    window = build.window_
    for n in range(12):
        write(build.desk, (*TOP, "what", "roughness"), 0.05 * n)
        QTest.qWait(3)
    settled(window)
    assert build.desk.work.idle


def test_a_layer_that_fails_is_told_and_the_rest_is_shown(build, settled):
    layer = build.desk.job.surface("s").layers[1]
    bad = msgspec.structs.replace(layer.seat, values={"level": 1e9})
    write(build.desk, (*TOP, "seat"), bad)
    settled(build.window_)
    assert build.done is not None
    assert "top" in build.done.faults
    build.desk.session.store.undo()
    settled(build.window_)
    assert build.done.faults == {}


def test_esc_leaves_nothing_greyed(build, settled):
    window = build.window_
    write(build.desk, (*TOP, "what", "colour"), "#123456")
    QTest.keyClick(window, Qt.Key.Key_Escape)
    settled(window)
    assert build.layer_card.isEnabled()
    assert build.desk.work.idle


def test_what_was_seen_is_kept_for_the_next_opening(build, settled):
    session = build.desk.session
    settled(build.window_)
    kept = session.previews["s"]
    write(build.desk, (*TOP, "what", "colour"), "#00FF00")
    settled(build.window_)
    assert session.previews["s"].key != kept.key
    newest = session.previews["s"]
    build.desk.view.show_view("Height")
    settled(build.window_)
    assert session.previews["s"] is newest
