"""A supplier's catalogue: a stand-in service that ships with the program. It lists, it fetches slowly, it can fail."""

from __future__ import annotations

import functools
import hashlib
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

import msgspec

from ...core.buildup.kinds.recipe import RecipeWhat
from ...core.errors import CancelledError, DeviceError, MissingError
from ...core.job.layers import Layer
from ...core.job.nodes import Setting
from ...core.recipe.materials import MATERIALS, Stock
from ...formats.disk import write_atomically
from ..evaluate import always
from .kits import Kit, encode_kit

FAULTS = ("none", "not reachable", "breaks off")
CHUNK = 512
_TONES = (
    ("slate", 200.0, 0.85, -0.25),
    ("sand", 35.0, 0.9, 0.2),
    ("sage", 110.0, 0.8, 0.05),
    ("rust", 14.0, 1.15, -0.1),
)
Progress = Callable[[float], None]


@dataclass(frozen=True, slots=True)
class Offer:
    """One item of the catalogue: made up, and made by the program's own recipes."""

    number: str
    name: str
    tags: tuple[str, ...]
    size_mm: tuple[float, float]
    bytes: int


@functools.cache
def _offers() -> tuple[tuple[Offer, Kit], ...]:
    """Everything the stand-in has, made once: the list is asked for at every fetch and every look at the Library."""
    return tuple(_made_up())


def _made_up() -> Iterator[tuple[Offer, Kit]]:
    for k, stock in enumerate(MATERIALS):
        for n, (tone, hue, saturation, lightness) in enumerate(_TONES):
            kit = _kit(stock, tone, hue, saturation, lightness, seed=100 * k + 17 * n + 3)
            number = f"ST-{k + 1:02d}{n + 1:02d}"
            yield Offer(number, f"{stock.name}, {tone}", kit.tags, stock.repeat_mm, len(encode_kit(kit))), kit


def _kit(stock: Stock, tone: str, hue: float, saturation: float, lightness: float, seed: int) -> Kit:
    recipe = msgspec.structs.replace(stock.make(), seed=seed)
    look = Setting(
        op="look.adjust",
        values={
            "hue": (hue + 180) % 360 - 180 if tone == "rust" else 0.0,
            "saturation": saturation,
            "lightness": lightness,
        },
    )
    layer = Layer(
        id="item",
        name=f"{stock.name}, {tone}",
        what=RecipeWhat(recipe=recipe),
        look=look,
        seat=Setting(op="seat.over", values={"drape": 0.0}),
    )
    return Kit(
        name=layer.name,
        note=stock.note,
        tags=("catalogue", stock.name.split()[-1].lower(), tone),
        size_mm=stock.repeat_mm,
        layers=(layer,),
    )


class Catalogue:
    """The simulated supplier. ``fault`` is what it should do wrong next; ``seconds`` how long a whole fetch takes."""

    def __init__(self, folder: Path, *, fault: str = "none", seconds: float = 0.6) -> None:
        self.folder, self.fault, self.seconds = folder, fault, seconds

    def offers(self) -> list[Offer]:
        """Everything on offer.

        Raises
        ------
        DeviceError
            when the supplier cannot be reached.
        """
        if self.fault == "not reachable":
            raise DeviceError(
                "The catalogue",
                value="it does not answer",
                remedy="Try again later; what was fetched before is still here.",
            )
        return [offer for offer, _ in _offers()]

    def has(self, number: str) -> bool:
        """Whether an item was fetched."""
        return (self.folder / f"{number}.kit.json").exists()

    def fetched_share(self, number: str) -> float:
        """How much of an item lies here, 0 to 1."""
        if self.has(number):
            return 1.0
        part = self.folder / f"{number}.part"
        return part.stat().st_size / max(self._item(number)[0].bytes, 1) if part.exists() else 0.0

    def _item(self, number: str) -> tuple[Offer, bytes]:
        for offer, kit in _offers():
            if offer.number == number:
                return offer, encode_kit(kit)
        raise MissingError("item", value=number)

    def fetch(self, number: str, *, progress: Progress | None = None, current: Callable[[], bool] = always) -> Path:
        """Fetch an item, going on where an earlier fetch broke off; returns its file.

        Raises
        ------
        DeviceError
            when the connection fails; what came so far is kept.
        CancelledError
            when stopped.
        """
        target = self.folder / f"{number}.kit.json"
        if target.exists():
            return target
        if self.fault == "not reachable":
            raise DeviceError("The catalogue", value="it does not answer", remedy="Try again later.")
        _, data = self._item(number)
        self.folder.mkdir(parents=True, exist_ok=True)
        part = self.folder / f"{number}.part"
        done = part.stat().st_size if part.exists() else 0
        if done > len(data) or (part.exists() and part.read_bytes() != data[:done]):
            done = 0
        chunks = max(1, len(data) // CHUNK)
        with part.open("r+b" if done else "wb") as file:
            file.seek(done)
            while done < len(data):
                if not current():
                    raise CancelledError
                if self.fault == "breaks off" and done >= 0.6 * len(data):
                    raise DeviceError(
                        "The catalogue",
                        value=f"the connection broke at {100 * done / len(data):.0f} %",
                        remedy="Fetch again: it goes on from there.",
                    )
                time.sleep(self.seconds / chunks)
                file.write(data[done : done + CHUNK])
                file.flush()
                done = min(len(data), done + CHUNK)
                if progress:
                    progress(done / len(data))
        if hashlib.blake2b(part.read_bytes()).digest() != hashlib.blake2b(data).digest():
            part.unlink()
            raise DeviceError("The catalogue", value="the item arrived damaged", remedy="Fetch it again.")
        write_atomically(target, data)
        part.unlink()
        return target
