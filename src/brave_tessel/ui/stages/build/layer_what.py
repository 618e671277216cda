"""The What of a layer's card: what each kind of layer is made of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QLabel, QPushButton, QWidget

from ....core.buildup.laying import closing_turn
from ....core.buildup.mixing import MODES
from ....core.buildup.run import neutral_level, path_of, whole_steps
from ....core.job.document import (
    BundleWhat,
    DecalWhat,
    InscriptionWhat,
    Layer,
    MapMix,
    PaintedWhat,
    PlainWhat,
    RecipeWhat,
    RunWhat,
    ScatterWhat,
    Setting,
    Source,
    SourceWhat,
    Surface,
    SurfaceWhat,
    WaterWhat,
    replace_values,
)
from ....core.maps import BLENDED, TRAITS, MapKind
from ....core.operation import REGISTRY, Angle, FontName, Fraction, Length, Paint, Whole, Words, family
from ....core.quantity import format_number, format_size
from ....core.recipe.closing import layer_closing
from ....core.repeat.mend import closed_size
from ....core.sheet import Grid
from ....engine.intents import sources as intents
from ....engine.intents.merging import open_merged
from ...controls.form import OperationForm
from ...controls.panels import Heading, button, words
from .layer_forms import LayerForms, line

SHORT = {
    MapKind.BASE_COLOUR: "Colour",
    MapKind.HEIGHT: "Height",
    MapKind.NORMAL: "Normal",
    MapKind.ROUGHNESS: "Rough",
    MapKind.METALNESS: "Metal",
    MapKind.AMBIENT_OCCLUSION: "Occlusion",
    MapKind.OPACITY: "Cut-out",
}
_ORDER = (
    MapKind.BASE_COLOUR,
    MapKind.HEIGHT,
    MapKind.NORMAL,
    MapKind.ROUGHNESS,
    MapKind.METALNESS,
    MapKind.AMBIENT_OCCLUSION,
    MapKind.OPACITY,
)
KINDS: dict[type, str] = {
    PlainWhat: "plain",
    RecipeWhat: "recipe",
    SourceWhat: "source",
    SurfaceWhat: "surface",
    DecalWhat: "decal",
    PaintedWhat: "painted",
    WaterWhat: "standing water",
    RunWhat: "run",
    InscriptionWhat: "inscription",
    ScatterWhat: "scatter",
    BundleWhat: "bundle",
}
_PLACE = {"x_mm": "Right", "y_mm": "Up", "width_mm": "Width", "height_mm": "Height", "turn": "Turn", "skew": "Skew"}


class WhatForms(LayerForms):
    """Adds the parts of What; which ones depends on the kind."""

    recipe_wanted = pyqtSignal(str)
    strokes_wanted = pyqtSignal()
    file_wanted = pyqtSignal()
    told_neutral: QLabel | None = None

    def build_what(self, surface: Surface, layer: Layer) -> None:
        what = layer.what
        self.add(Heading("What", KINDS[type(what)]))
        if not isinstance(what, WaterWhat | BundleWhat):
            self._build_maps(layer)
        parts: dict[type, Callable[[Surface, Layer, Any], None]] = {
            PlainWhat: self._plain,
            RecipeWhat: self._recipe,
            SourceWhat: self._source,
            SurfaceWhat: self._surface,
            DecalWhat: self._decal,
            PaintedWhat: self._painted,
            WaterWhat: self._water,
            RunWhat: self._run,
            InscriptionWhat: self._inscription,
            ScatterWhat: self._scatter,
            BundleWhat: self._bundle,
        }
        parts[type(what)](surface, layer, what)
        if isinstance(what, RecipeWhat | SourceWhat | SurfaceWhat):
            self._build_laying(surface, layer)
        if not isinstance(what, WaterWhat | BundleWhat | PaintedWhat):
            look = self.section("Look", "as it is" if not layer.look.values else "changed")
            look.add(self.setting_form(layer, ("look",)))
            self.tell(look.say, lambda shown: "changed" if shown.look.values else "as it is")

    # Maps ----------------------------------------------------------------------------------------

    def _build_maps(self, layer: Layer) -> None:
        switches = [self._map_switch(layer, kind) for kind in _ORDER]
        self.add(line(*((switch, 1) for switch in switches[:4])))
        self.add(line(*((switch, 1) for switch in switches[4:])))
        mixes = self.section("How maps mix", "plainly over" if not layer.mixes else f"{len(layer.mixes)} otherwise")
        for kind in _ORDER:
            if kind in layer.maps:
                mixes.add(self._mix_row(layer, kind))
                mixes.add(self._mix_strength(layer, kind))

    def _map_switch(self, layer: Layer, kind: MapKind) -> QPushButton:
        switch = QPushButton(SHORT[kind])
        switch.setCheckable(True)
        switch.setChecked(kind in layer.maps)
        switch.setToolTip(f"Whether this layer changes the {TRAITS[kind].label.lower()} map")
        switch.setAccessibleName(f"Map {SHORT[kind]}")
        switch.clicked.connect(partial(self._switch, kind))
        return switch

    def _switch(self, kind: MapKind, on: bool) -> None:
        layer = self.desk.layer
        if layer:
            self.put(
                ("maps",),
                layer.maps | {kind} if on else layer.maps - {kind},
                f"Switch {SHORT[kind].lower()} {'on' if on else 'off'}",
            )

    def _mix_row(self, layer: Layer, kind: MapKind) -> QWidget:
        box = QComboBox()
        box.setAccessibleName(f"{SHORT[kind]}, mode")
        box.addItems(MODES[kind])
        box.setCurrentText(layer.mix(kind).mode)
        box.setEnabled(len(MODES[kind]) > 1)
        box.activated.connect(lambda _i: self._set_mix(kind, mode=box.currentText()))
        self.fields.append((_Shown(box.setCurrentText), lambda shown: shown.mix(kind).mode))
        return line((QLabel(SHORT[kind]), 1), (box, 0))

    def _mix_strength(self, layer: Layer, kind: MapKind) -> QWidget:
        from ...controls.ruled_scale import RuledScale

        param = replace(
            Fraction(help=f"How strongly it changes the {TRAITS[kind].label.lower()} map."),
            label=f"{SHORT[kind]} strength",
            default=1.0,
        )
        scale = RuledScale(param, layer.mix(kind).strength)
        scale.changed.connect(lambda value: self._set_mix(kind, strength=float(value)))
        scale.released.connect(self.desk.end_gesture)
        self.fields.append((scale, lambda shown: shown.mix(kind).strength))
        return scale

    def _set_mix(self, kind: MapKind, **change: Any) -> None:
        layer = self.desk.layer
        if layer:
            import msgspec

            mix = msgspec.structs.replace(layer.mixes.get(kind, MapMix()), **change)
            mixes = {k: m for k, m in {**layer.mixes, kind: mix}.items() if m != MapMix()}
            self.put(("mixes",), mixes, f"Mix {SHORT[kind].lower()}", gesture=f"{layer.id}-mix-{kind}")

    # Laying --------------------------------------------------------------------------------------

    def _build_laying(self, surface: Surface, layer: Layer) -> None:
        part = self.section("Laid in the sheet", laying_note(surface, layer))
        for name, label in (("across", "Repeats across"), ("up", "Repeats up")):
            param = replace(
                Whole(1, 12, most=64, unit="×", help="Whole repeats in this surface, so that it closes."),
                label=label,
                default=1,
            )
            part.add(self.field(param, getattr(layer.what, name), ("what", name), label="Set repeats"))
        own = self.own_size(layer)
        if own is not None:
            fit = button(
                "At its own size",
                lambda: self._at_own_size(own),
                tip="As many whole repeats as bring it nearest to its real size",
            )
            part.add(fit, self._linked())
            part.add(self.telling(lambda shown: own_size_note(surface, shown, own)))
        part.add(self.setting_form(layer, ("laying",)))
        part.add(self.telling(lambda shown: turn_note(surface, shown)))
        self.tell(part.say, lambda shown: laying_note(surface, shown))

    def _linked(self) -> QPushButton:
        linked = button("Linked", lambda: None, tip="Sets repeats up along with repeats across, in proportion")
        linked.setCheckable(True)
        linked.clicked.connect(lambda _on=False: self._link())
        return linked

    def _link(self) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        own = self.own_size(layer) if layer else None
        if surface and layer and own:
            # Square with its own proportion: as many up as keep its shape at the repeats across.
            across = layer.what.across  # type: ignore[union-attr]
            up = max(1, round(across * own[0] / surface.width_mm * surface.height_mm / own[1]))
            self.put(("what", "up"), up, "Link repeats")

    def own_size(self, layer: Layer) -> tuple[float, float] | None:
        """The real size of what a layer is made of, mm."""
        what = layer.what
        if isinstance(what, SourceWhat):
            source = next((s for s in self.desk.job.sources if s.id == what.source), None)
            return closed_size(source) if source is not None and source.sized else None
        if isinstance(what, SurfaceWhat):
            other = next((s for s in self.desk.job.surfaces if s.id == what.surface), None)
            return (other.width_mm, other.height_mm) if other else None
        return None

    def _at_own_size(self, own: tuple[float, float]) -> None:
        import msgspec

        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            counts = {
                "across": max(1, round(surface.width_mm / own[0])),
                "up": max(1, round(surface.height_mm / own[1])),
            }
            self.put(("what",), msgspec.structs.replace(layer.what, **counts), "Lay at its own size")

    # Kinds ---------------------------------------------------------------------------------------

    def _plain(self, _surface: Surface, layer: Layer, what: PlainWhat) -> None:
        self.add(
            self.field(
                replace(Paint(help="Colour of the layer."), label="Colour", default="#B9B2A3"),
                what.colour,
                ("what", "colour"),
            )
        )
        self.add(
            self.field(
                replace(Fraction(help="Roughness of the layer."), label="Roughness", default=0.8),
                what.roughness,
                ("what", "roughness"),
            )
        )
        self.add(
            self.field(
                replace(Fraction(help="Metalness of the layer."), label="Metalness", default=0.0),
                what.metalness,
                ("what", "metalness"),
            )
        )

    def _recipe(self, surface: Surface, layer: Layer, what: RecipeWhat) -> None:
        self.add(button("Open the recipe", lambda: self.recipe_wanted.emit(""), tip="Its steps, one by one (E)"))
        closes = layer_closing(layer, surface.width_mm / what.across, surface.height_mm / what.up)
        if closes is not None and not closes[1].fits:
            self.add(
                words(
                    f"{closes[0].name} fits {format_size(*closes[1].fitting)}; it is "
                    f"stretched by {100 * max(map(abs, closes[1].stretch)):.1f} %.",
                    "caution",
                )
            )
        self.step_forms(layer, what)

    def step_forms(self, layer: Layer, what: RecipeWhat) -> None:
        """The opened dials of a recipe, or all of them where none is opened."""
        some = any(step.opened for step in what.recipe.steps)
        for step in what.recipe.steps:
            operation = REGISTRY.get(step.op)
            if (some and not step.opened) or (operation is not None and not operation.params):
                continue
            self.add(words(f"{step.name} · {operation.label.lower() if operation else 'unknown'}"))
            form = OperationForm(step.op, step.values, only=step.opened if some else None)
            form.changed.connect(lambda name, value, key=step.name: self._set_step(key, name, value))
            self.add(self.keep_form(form, partial(_of_step, step.name)))

    def _set_step(self, step: str, name: str, value: Any) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            self.desk.dispatch(
                intents.set_step_value(surface, layer, step, name, value, gesture=f"{layer.id}-{step}-{name}")
            )

    def _source(self, _surface: Surface, layer: Layer, what: SourceWhat) -> None:
        source = next((s for s in self.desk.job.sources if s.id == what.source), None)
        if source is None:
            self.add(words("Its source is gone.", "fault"))
            return
        self.add(words(source.name))
        if what.merged:
            self.add(
                button(f"Open the {len(what.merged)} merged layers", self._open_merged, tip="In place of their map set")
            )
        for part in ("height", "roughness"):
            own = source.brings(part)
            estimated = self.section(f"{part.capitalize()}", "its own map" if own else "estimated from the picture")
            if own and part == "roughness":
                estimated.add(words("It comes with the source."))
                continue
            setting: Setting = getattr(what, part) or getattr(source, part)
            form = OperationForm(setting.op, setting.values, only=("rise",) if own else None)
            form.changed.connect(partial(self._set_estimate, part))
            estimated.add(self.keep_form(form, partial(_estimate_values, part, source)))

    def _open_merged(self) -> None:
        surface, layer = self.desk.surface, self.desk.layer
        if surface and layer:
            self.desk.dispatch(open_merged(surface, layer))

    def _set_estimate(self, part: str, name: str, value: Any) -> None:
        layer = self.desk.layer
        if layer and isinstance(layer.what, SourceWhat):
            setting = getattr(layer.what, part) or getattr(self.desk.job.source(layer.what.source), part)
            self.put(
                ("what", part),
                replace_values(setting, **{name: value}),
                f"Set {name.replace('_', ' ')}",
                gesture=f"{layer.id}-{part}-{name}",
            )

    def _surface(self, _surface: Surface, _layer: Layer, what: SurfaceWhat) -> None:
        other = next((s for s in self.desk.job.surfaces if s.id == what.surface), None)
        told = f"{other.name}, {format_size(other.width_mm, other.height_mm)}" if other else "The surface is gone."
        self.add(words(told, "note" if other else "fault"))
        if other is not None:
            self.add(
                button("Go to that surface", lambda: self.desk.select(surface=other.id), tip="Shows its own build-up")
            )

    def _decal(self, _surface: Surface, layer: Layer, what: DecalWhat) -> None:
        if what.recipe is not None:
            self.add(
                button("Open the recipe", lambda: self.recipe_wanted.emit(""), tip="The steps that make the decal (E)")
            )
        else:
            source = next((s.name for s in self.desk.job.sources if s.id == what.source), "no source")
            self.add(words(source))
        self.add(words("Drag it on the board; corners size it, with Shift unequally, the knob turns it."))
        self.add(
            button(
                "Match its colour",
                lambda: self.set_setting(("tone",), "tone_match", 0.8),
                tip="Brings its colour to what lies beneath; how far is under Tone match",
            )
        )
        self._placement(layer)
        copies = self.section(
            "Copies and edge",
            "set once" if what.strew.number("copies") == 1 else f"{what.strew.number('copies'):.0f} copies",
        )
        copies.add(self.setting_form(layer, ("what", "strew")))

    def _placement(self, layer: Layer) -> None:
        part = self.section("Place and size")
        for name, label in _PLACE.items():
            angle = name in {"turn", "skew"}
            param = (
                Angle(-180 if name == "turn" else -60, 180 if name == "turn" else 60, help=f"{label} of the placement.")
                if angle
                else Length(
                    1 if "width" in name or "height" in name else 0,
                    2000,
                    least=0.1 if "width" in name or "height" in name else -1e5,
                    most=1e5,
                    help=f"{label}, on the sheet.",
                )
            )
            part.add(
                self.field(
                    replace(param, label=label, default=0.0 if angle else 100.0),
                    getattr(layer.what.placement, name),
                    ("what", "placement", name),
                    label="Place it",
                )
            )  # type: ignore[union-attr]

    def _painted(self, _surface: Surface, layer: Layer, what: PaintedWhat) -> None:
        self.add(words("Strokes are paths in mm, drawn again at every size."))
        self.strokes_wanted.emit()

    def _water(self, _surface: Surface, layer: Layer, _what: WaterWhat) -> None:
        self.add(self.setting_form(layer, ("what", "water")))

    def _run(self, surface: Surface, layer: Layer, what: RunWhat) -> None:
        self.add(words("Drag its points on the board; click the run to add one, Del takes the chosen one out."))
        box = QComboBox()
        box.setAccessibleName("Stamp")
        for operation in family("stamp"):
            box.addItem(operation.label, operation.id)
        box.setCurrentIndex(box.findData(what.stamp.op))
        box.activated.connect(
            lambda _i: self.put(("what", "stamp"), Setting(op=str(box.currentData())), "Another stamp")
        )
        self.add(line((QLabel("Stamp"), 1), (box, 0)))
        self.add(self.setting_form(layer, ("what", "stamp")))
        self.add(self.telling(lambda shown: steps_note(surface, shown)))
        if what.stamp.op == "stamp.source" and what.stamp.value("source"):
            self._tell_neutral(surface, layer, what)
        closed, rounded = (
            button(text, partial(self._flag, name), tip=tip)
            for name, text, tip in (
                ("closed", "Closed", "Returns to where it began"),
                ("rounded", "Rounded", "A smooth curve through its points"),
            )
        )
        for flag, made in (("closed", closed), ("rounded", rounded)):
            made.setCheckable(True)
            made.setChecked(getattr(what, flag))
        self.add(line((closed, 1), (rounded, 1)))
        self.add(
            self.field(
                replace(Paint(help="Colour of the run."), label="Colour", default="#8F7A52"),
                what.colour,
                ("what", "colour"),
            )
        )
        self.add(
            self.field(
                replace(Fraction(help="Roughness of the run."), label="Roughness", default=0.8),
                what.roughness,
                ("what", "roughness"),
            )
        )

    def _tell_neutral(self, surface: Surface, layer: Layer, what: RunWhat) -> None:
        """Where the stamp's relief is neutral, worked out off the window's thread."""
        told = words("Its neutral level is being found from its rim.")
        self.add(told)
        session, job = self.desk.session, self.desk.job

        def work(current: Callable[[], bool]) -> float:
            task = session.planner(job).run_stamp(
                what, Grid.for_repeat(surface.width_mm, surface.height_mm, 512), layer.id
            )
            maps = session.evaluation(current).value(task) if task is not None else None
            return neutral_level(maps.or_default(MapKind.HEIGHT)) if maps is not None else 0.0

        def then(level: float) -> None:
            # The card may have been built anew by the time the level is known.
            if self.told_neutral is told:
                told.setText(
                    f"Its neutral level is {format_number(level)} mm, found from its rim; no step shows there."
                )

        self.told_neutral = told
        self.desk.ask("neutral", work, then)

    def _flag(self, name: str) -> None:
        layer = self.desk.layer
        if layer:
            self.put(("what", name), not getattr(layer.what, name), f"{name.capitalize()} run")

    def _inscription(self, _surface: Surface, layer: Layer, what: InscriptionWhat) -> None:
        if what.drawing:
            self.add(
                line(
                    (words("A drawing"), 1),
                    (button("Use text", lambda: self.put(("what", "drawing"), "", "Use text"), tip="Write instead"), 0),
                )
            )
        else:
            self.add(
                self.field(
                    replace(Words(help="What is written; a new line begins a new row."), label="Text", default=""),
                    what.text,
                    ("what", "text"),
                )
            )
            self.add(
                self.field(
                    replace(FontName(help="A shipped or an installed font."), label="Font", default=""),
                    what.font,
                    ("what", "font"),
                )
            )
        self.add(
            button(
                "Drawing from a file…", self.file_wanted.emit, tip="An SVG, or a cut-out picture whose shape is used"
            )
        )
        self.add(self.setting_form(layer, ("what", "cut")))
        self._placement(layer)

    def _scatter(self, _surface: Surface, layer: Layer, what: ScatterWhat) -> None:
        self.add(words(", ".join(kind.name for kind in what.scatter.kinds) or "No kinds of pieces yet."))
        for kind in what.scatter.kinds:
            part = self.section(kind.name, format_size(kind.width_mm, kind.height_mm))
            for name, label in (("width_mm", "Width"), ("height_mm", "Length")):
                param = replace(
                    Length(2, 300, log=True, least=0.2, most=5000, help=f"{label} of a piece."),
                    label=label,
                    default=40.0,
                )
                part.add(
                    self.field(
                        param, getattr(kind, name), ("what", "scatter", "kinds", kind.id, name), label="Size a piece"
                    )
                )
            part.add(self.setting_form(layer, ("what", "scatter", "kinds", kind.id, "shape")))
        add = QComboBox()
        add.setAccessibleName("Add a kind of piece")
        add.addItem("Add a kind of piece…", "")
        for operation in family("shape"):
            add.addItem(operation.label, operation.id)
        add.activated.connect(lambda _i: self._add_kind(layer, str(add.currentData()), add.currentText()))
        self.add(add)
        self.add(self.setting_form(layer, ("what", "scatter", "strew")))

    def _add_kind(self, layer: Layer, op: str, name: str) -> None:
        from ....core.job.document import PieceKind, new_id

        if op and isinstance(layer.what, ScatterWhat):
            kinds = (*layer.what.scatter.kinds, PieceKind(id=new_id("kind"), name=name, shape=Setting(op=op)))
            self.put(("what", "scatter", "kinds"), kinds, f"Add {name.lower()}")

    def _bundle(self, _surface: Surface, layer: Layer, what: BundleWhat) -> None:
        self.add(words(", ".join(inner.name for inner in reversed(what.layers)) or "Empty: drag layers onto its row."))
        passing = button(
            "Passing" if what.passing else "Closed",
            lambda: self.put(("what", "passing"), not what.passing, "Open or close the bundle"),
            tip="Passing: each layer meets what lies beneath by itself. "
            "Closed: they are joined first and meet it as one",
        )
        opened = button("Open the bundle", lambda: self.unbundle(), tip="Its layers in its place")
        self.add(line((passing, 1), (opened, 1)))
        if len(what.layers) == 2:
            param = replace(
                Fraction(
                    help="From the lower layer of the bundle, at 0, to the upper one, at 1; both whole in the middle."
                ),
                label="Mix",
                default=0.5,
            )
            self.add(self.field(param, what.mix, ("what", "mix"), label="Mix the bundle"))
        for dial in what.dials:
            self._dial(layer, dial)

    def _dial(self, bundle: Layer, dial: tuple[str, ...]) -> None:
        """A dial of a layer within the bundle, kept open by its kit."""
        from ....core.job.commands import fetch

        *where, name = dial
        way = ("what", "layers", *where)
        try:
            setting: Setting = fetch(bundle, way)
        except Exception:  # noqa: BLE001 - a dial whose layer has been taken out is not shown
            return
        inner = fetch(bundle, ("what", "layers", where[0]))
        self.add(words(inner.name))
        form = OperationForm(setting.op, setting.values, only=(name,))
        form.changed.connect(lambda key, value: self.set_setting(way, key, value))
        self.add(self.keep_form(form, lambda shown: dict(fetch(shown, way).values)))

    def unbundle(self) -> None:
        """The bundle's layers in its place."""


def _estimate_values(part: str, source: Source, layer: Layer) -> dict[str, Any]:
    setting: Setting = getattr(layer.what, part) or getattr(source, part)
    return dict(setting.values)


class _Shown:
    """Anything that shows a value by a call."""

    def __init__(self, show: Callable[[str], object]) -> None:
        self.show_value = show


def _of_step(name: str, layer: Layer) -> dict[str, Any]:
    return step_values(layer, name)


def step_values(layer: Layer, name: str) -> dict[str, Any]:
    """The values of a step of a recipe layer."""
    if isinstance(layer.what, RecipeWhat):
        return next((dict(step.values) for step in layer.what.recipe.steps if step.name == name), {})
    return {}


def laying_note(surface: Surface, layer: Layer) -> str:
    """How a layer is laid, in a few words."""
    across, up = getattr(layer.what, "across", 1), getattr(layer.what, "up", 1)
    turn = layer.laying.number("turn")
    return f"{across} × {up}" + (f" · {turn:g}°" if turn else "")


def own_size_note(surface: Surface, layer: Layer, own: tuple[float, float]) -> str:
    """How far a layer is from its own size."""
    across, up = layer.what.across, layer.what.up  # type: ignore[union-attr]
    laid = (surface.width_mm / across, surface.height_mm / up)
    errors = " and ".join(
        f"{100 * (is_ / real - 1):+.1f} %".replace("-", "−") for is_, real in zip(laid, own, strict=True)
    )
    return f"Its {format_size(*own)} are laid as {format_size(*laid)}: {errors}."


def steps_note(surface: Surface, layer: Layer) -> str:
    """How many whole steps fill a run."""
    what = layer.what
    path = path_of(what, Grid(8, 8, surface.width_mm, surface.height_mm)) if isinstance(what, RunWhat) else None
    if path is None or not isinstance(what, RunWhat):
        return ""
    count, step = whole_steps(path.length, what.stamp.number("step"))
    return f"{count} whole steps of {format_number(step)} mm on {format_number(path.length, decimals=1)} mm."


def turn_note(surface: Surface, layer: Layer) -> str:
    """What turn closes in place of the asked one."""
    wanted = layer.laying.number("turn")
    if wanted % 360 == 0:
        return ""
    cell = (surface.width_mm / getattr(layer.what, "across", 1), surface.height_mm / getattr(layer.what, "up", 1))
    turn = closing_turn(wanted, (surface.width_mm, surface.height_mm), cell)
    off = (turn.angle - wanted + 180) % 360 - 180
    told = f"{format_number(turn.angle, decimals=1)}° closes" if abs(off) > 0.05 else "It closes"
    more = [f"{format_number(off, decimals=1)}° off"] if abs(off) > 0.05 else []
    more += [f"{turn.finer:.2f} × finer"] if abs(turn.finer - 1) > 0.005 else []
    more += [f"stretched by {100 * turn.stretch:.1f} %"] if turn.stretch > 0.001 else []
    return f"{told}{': ' if more else ''}{', '.join(more)}."


assert set(SHORT) == set(BLENDED)
