"""The ruled scale, forms, rows and the frame of the window."""

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLabel, QLineEdit

from brave_tessel.core.operation import REGISTRY
from brave_tessel.ui import theme
from brave_tessel.ui.app import make_app
from brave_tessel.ui.controls.form import OperationForm
from brave_tessel.ui.controls.hatch import HATCHES, next_hatch
from brave_tessel.ui.controls.ruled_scale import RuledScale


@pytest.fixture
def scale(qtbot):
    make_app(lamp=False, scale=1.0)
    made = RuledScale(REGISTRY["pattern.units"].params["length"], 150.0)
    made.resize(260, 60)
    qtbot.addWidget(made)
    made.show()
    made.heard = []
    made.refusals = []
    made.changed.connect(made.heard.append)
    made.refused.connect(made.refusals.append)
    return made


def enter(field, text):
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)


@pytest.mark.parametrize(
    ("text", "value"), [("215", 215), ("1/2 in", 12.7), ("34*75", 2550), ("0.3 m", 300), ("2000", 2000)]
)
def test_typed_values_with_units_and_sums(scale, text, value):
    enter(scale.field, text)
    assert scale.heard == [value]


@pytest.mark.parametrize("text", ["wide", "-5", "0"])
def test_wrong_values_are_told_and_change_nothing(scale, text):
    enter(scale.field, text)
    assert scale.heard == []
    assert len(scale.refusals) == 1
    assert scale.field.property("wrong")
    enter(scale.field, "160")
    assert not scale.field.property("wrong")


def test_a_value_outside_the_ruled_range_parks_the_pointer(scale):
    enter(scale.field, "5 m")
    assert scale.value == 5000
    assert scale.rule.position > 1


def test_keys_step_fine_and_coarse(scale):
    scale.rule.setFocus()
    steps = []
    for modifier in (
        Qt.KeyboardModifier.ShiftModifier,
        Qt.KeyboardModifier.NoModifier,
        Qt.KeyboardModifier.ControlModifier,
    ):
        before = scale.value
        QTest.keyClick(scale.rule, Qt.Key.Key_Right, modifier)
        steps.append(scale.value - before)
    assert 0 < steps[0] < steps[1] < steps[2]


def test_wheel_needs_the_focus(scale):
    def turn():
        event = QWheelEvent(
            QPointF(20, 5),
            scale.rule.mapToGlobal(QPointF(20, 5)),
            QPoint(0, 0),
            QPoint(0, 120),
            Qt.MouseButton.NoButton,
            Qt.KeyboardModifier.NoModifier,
            Qt.ScrollPhase.NoScrollPhase,
            False,
        )
        QApplication.sendEvent(scale.rule, event)

    scale.rule.clearFocus()
    turn()
    assert scale.heard == []
    scale.rule.setFocus()
    turn()
    assert scale.heard[-1] > 150


def test_dragging_anywhere_and_double_click_restores(scale):
    QTest.mouseClick(scale.rule, Qt.MouseButton.LeftButton, pos=QPoint(scale.rule.width() // 2, 8))
    assert scale.value == pytest.approx((10 * 1200) ** 0.5, rel=0.05)
    QTest.mouseDClick(scale.rule, Qt.MouseButton.LeftButton, pos=QPoint(20, 8))
    assert scale.value == 150


def test_showing_a_value_sends_nothing(scale):
    scale.show_value(320)
    assert scale.heard == []
    assert scale.field.text() == "320"


@pytest.mark.parametrize("op", REGISTRY)
def test_every_operation_has_a_form_from_its_declaration(qtbot, op):
    make_app(lamp=False, scale=1.0)
    form = OperationForm(op, {})
    qtbot.addWidget(form)
    assert set(form.controls) == set(REGISTRY[op].params)
    heard = []
    form.changed.connect(lambda name, value: heard.append(name))
    form.show_values(REGISTRY[op].defaults())
    assert heard == []
    for control in form.controls.values():
        assert control.toolTip()


def test_unknown_operations_are_shown_as_unknown(qtbot):
    form = OperationForm("noise.from_the_future", {"depth": 1.0})
    qtbot.addWidget(form)
    assert "kept unchanged" in form.findChild(QLabel).text()


def test_each_layer_gets_a_hatch_of_its_own():
    taken = set()
    for _ in HATCHES:
        taken.add(next_hatch(taken))
    assert len(taken) == len(HATCHES)
    assert next_hatch(taken) in HATCHES


def contrast(a, b):
    from brave_tessel.core.colour import hex_to_linear

    y = [sum(w * c for w, c in zip((0.2126, 0.7152, 0.0722), hex_to_linear(text), strict=True)) for text in (a, b)]
    return (max(y) + 0.05) / (min(y) + 0.05)


@pytest.mark.parametrize("tokens", [theme.LIGHT, theme.LAMP], ids=["light", "lamp"])
def test_text_contrast(tokens):
    # WCAG 2.1, 1.4.3: at least 4.5 to 1.
    for ink in ("ink", "ink_2", "verdigris", "oxide", "ochre", "chalk_line"):
        for ground in ("panel", "white"):
            assert contrast(getattr(tokens, ink), getattr(tokens, ground)) >= 4.5, (ink, ground)
    assert contrast(tokens.ink, tokens.wash) >= 4.5
    assert contrast(tokens.panel, tokens.ink) >= 4.5
    assert contrast(tokens.on_ink, tokens.chalk_line) >= 4.5


def test_every_control_has_a_name_for_those_who_cannot_see_it(demo_window, settled):
    for stage in demo_window.stages:
        demo_window.desk.go(stage)
        settled(demo_window)
        for kind in (QAbstractButton, QLineEdit, QComboBox):
            for control in demo_window.findChildren(kind):
                if not control.isVisible() or control.objectName() == "qt_spinbox_lineedit":
                    continue
                named = control.accessibleName() or getattr(control, "text", lambda: "")() or control.toolTip()
                assert named, (stage, control)


def test_every_shortcut_is_its_own(window):
    keys = [
        a.shortcut().toString() for a in window.findChildren(type(window.actions_.undo)) if not a.shortcut().isEmpty()
    ]
    assert len(keys) == len(set(keys))
    assert {"Ctrl+Z", "Ctrl+S", "F9", "F10", "F11", "1", "5"} <= set(keys)


def test_after_enter_the_keys_are_the_rules(scale):
    enter(scale.field, "160")
    assert scale.value == 160
    QApplication.processEvents()
    assert scale.rule.hasFocus()
    # A digit is no part of the number any more.
    QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_4)
    assert scale.field.text() == "160"
    enter(scale.field, "wide")
    QApplication.processEvents()
    assert scale.field.hasFocus(), "what is refused is mended first"


def test_what_counts_for_nothing_is_not_shown(qtbot):
    form = OperationForm("estimate.height", {})
    qtbot.addWidget(form)
    shown = {name for name, control in form.controls.items() if control.isVisibleTo(form)}
    assert {"rise", "grain", "one_side"} <= shown
    assert not shown & {"light_bearing", "light_height"}
    form.show_values({"as_told": True, "one_side": True})
    shown = {name for name, control in form.controls.items() if control.isVisibleTo(form)}
    assert {"as_told", "light_bearing", "sharpen"} <= shown
    assert not shown & {"rise", "grain", "fine"}
