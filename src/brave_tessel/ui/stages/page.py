"""A card about one source, with forms that set its values."""

from __future__ import annotations

from ...core.job.document import Source
from ...engine.intents import sources as source_intents
from ..controls.form import OperationForm
from ..controls.panels import Column, words
from ..desk import Desk


class Page(Column):
    """One step's card."""

    def __init__(self, desk: Desk, title: str, note: str) -> None:
        super().__init__(title)
        self.desk = desk
        self.title = words(title, "title")
        self.note = words(note)
        self.add(self.title)
        self.add(self.note)

    def show_source(self, source: Source) -> None:
        """Show a source's values; sends nothing."""

    def set_value(self, name: str, value: object, part: str) -> None:
        source = self.desk.selection.source
        if source:
            self.desk.dispatch(
                source_intents.set_source_value(self.desk.job, source, part, name, value, gesture=f"{part}-{name}")  # type: ignore[arg-type]
            )

    def follow(self, form: OperationForm, part: str) -> OperationForm:
        """Connect a form to one of the source's settings."""
        form.changed.connect(lambda name, value: self.set_value(name, value, part))
        form.released.connect(self.desk.end_gesture)
        form.refused.connect(lambda text: self.desk.tell(text, "fault"))
        return form
