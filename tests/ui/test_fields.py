"""Every field of every form by keys: what is typed is read and checked, told once, and shown without a word."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QComboBox

from brave_tessel.core.operation import REGISTRY
from brave_tessel.ui.app import make_app
from brave_tessel.ui.controls.form import OperationForm
from brave_tessel.ui.controls.ruled_scale import RuledScale
from brave_tessel.ui.controls.typed import TypedLine

WITH_NUMBERS = [
    op
    for op, declared in REGISTRY.items()
    if any(param.kind in {"length", "fraction", "whole", "angle"} for param in declared.params.values())
]


@pytest.fixture
def form(qtbot, request):
    """The form of an operation with everything it tells."""
    make_app(lamp=False, scale=1.0)
    made = OperationForm(request.param, {})
    qtbot.addWidget(made)
    made.resize(300, 900)
    made.show()
    made.activateWindow()
    qtbot.waitExposed(made)
    made.heard, made.refusals = [], []
    made.changed.connect(lambda name, value: made.heard.append((name, value)))
    made.refused.connect(made.refusals.append)
    return made


def scales(form):
    return {name: control for name, control in form.controls.items() if isinstance(control, RuledScale)}


def enter(line, text):
    line.setFocus()
    line.selectAll()
    QTest.keyClicks(line, text)
    QTest.keyClick(line, Qt.Key.Key_Return)


@pytest.mark.parametrize("form", WITH_NUMBERS, indirect=True)
def test_every_number_is_typed_refused_and_stepped(form):
    for name, scale in scales(form).items():
        param = REGISTRY[form.op].params[name]
        form.heard.clear()
        form.refusals.clear()
        shown = scale.value
        enter(scale.field, "nonsense")
        assert form.heard == []
        assert len(form.refusals) == 1
        assert "nonsense" in form.refusals[0]
        assert scale.field.text() == "nonsense"
        middle = param.low + 0.25 * (param.high - param.low)
        wanted = round(middle) if param.kind == "whole" else round(middle, 2)
        if wanted == shown:
            continue
        enter(scale.field, f"{wanted}")
        assert [told for told, _ in form.heard] == [name], (name, wanted)
        assert form.heard[0][1] == pytest.approx(param.check(form.heard[0][1]))
        scale.rule.setFocus()
        form.heard.clear()
        QTest.keyClick(scale.rule, Qt.Key.Key_Right)
        QTest.keyClick(scale.rule, Qt.Key.Key_Left)
        for _, value in form.heard:
            param.check(value)
        assert {told for told, _ in form.heard} <= {name}


@pytest.mark.parametrize("form", WITH_NUMBERS, indirect=True)
def test_a_value_beyond_what_can_be_is_refused_and_what_was_there_stays(form):
    for name, scale in scales(form).items():
        param = REGISTRY[form.op].params[name]
        before = scale.value
        form.heard.clear()
        enter(scale.field, f"{param.most * 10 + 1:.0f}")
        assert form.heard == [], name
        assert form.refusals
        assert scale.value == before


@pytest.mark.parametrize(
    "form",
    [op for op, declared in REGISTRY.items() if any(p.kind == "choice" for p in declared.params.values())],
    indirect=True,
)
def test_every_choice_is_sent_as_it_is_declared(form):
    for name, param in REGISTRY[form.op].params.items():
        if param.kind != "choice":
            continue
        control = form.controls[name]
        form.heard.clear()
        boxes = control.findChildren(QComboBox)
        for number, option in enumerate(param.options):
            if boxes:
                boxes[0].setCurrentIndex(number)
                boxes[0].activated.emit(number)
            else:
                (button,) = (b for key, b in control.choices.buttons.items() if key == option)
                button.click()
        assert {value for told, value in form.heard if told == name} <= set(param.options)
        assert len(form.heard) >= len(param.options) - 1


@pytest.mark.parametrize("form", ["seat.by_height"], indirect=True)
def test_a_half_typed_text_is_not_overwritten(form):
    level = form.controls["level"]
    level.field.setFocus()
    level.field.selectAll()
    QTest.keyClicks(level.field, "1.")
    form.show_values({**REGISTRY[form.op].defaults(), "level": 3.0})
    assert level.field.text() == "1."
    QTest.keyClicks(level.field, "5")
    QTest.keyClick(level.field, Qt.Key.Key_Return)
    assert form.heard == [("level", 1.5)]


def test_a_line_tells_what_it_cannot_read_once_and_keeps_it(qtbot):
    make_app(lamp=False, scale=1.0)

    from brave_tessel.core.quantity import parse_length

    line = TypedLine("Length", 80, parse_length)
    qtbot.addWidget(line)
    line.show()
    read, refused = [], []
    line.read.connect(read.append)
    line.refused.connect(refused.append)
    enter(line, "a foot or so")
    assert read == []
    assert len(refused) == 1
    assert line.text() == "a foot or so"
    enter(line, "2*75")
    assert read == [150.0]
    line.show_text("150 mm")
    assert line.text() == "150 mm"
