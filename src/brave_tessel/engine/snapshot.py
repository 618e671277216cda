"""One state of the job for one reader: what every worker, picture, delivery, save and check receives."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace

from ..core.errors import MissingError
from ..core.job.document import Job
from ..core.job.layers import Surface
from ..core.job.light import WALL
from ..core.light.lighting import Eye, Lighting
from ..core.maps import MapSet
from ..core.outlines import Outline
from ..core.place.site import Ground, Site
from ..core.plan.planner import Planner
from ..core.sheet import AnyArray, Grid, Raster
from ..formats.drawings import outline_of
from ..formats.images import decode_codes, decode_picture
from ..formats.lettering import letters
from ..formats.models import model_relief
from ..formats.skies import decode_sky
from .cache import Cache
from .evaluate import Evaluation, always
from .memory import require_room
from .place.shelf import ModelShelf


@dataclass(frozen=True, slots=True)
class Snapshot:
    """A job and the bytes it refers to, frozen together. Two readers of one snapshot see the same, whatever goes on.

    The cache is shared machinery: its entries are named by content, so it says nothing of the state.
    """

    job: Job
    blobs: Mapping[str, bytes]
    cache: Cache = field(compare=False, repr=False)
    models: ModelShelf = field(default_factory=ModelShelf, compare=False, repr=False)

    def with_job(self, job: Job) -> Snapshot:
        """Another job on the same bytes, such as one with a change tried out."""
        return replace(self, job=job)

    # Pixels --------------------------------------------------------------------------------------

    def load_pixels(self, blob: str) -> Raster:
        """Linear pixels of a stored file, (H, W, 3) float32."""
        return self._decoded(b"pixels", blob, decode_picture)

    def load_codes(self, blob: str) -> Raster:
        """Codes of a stored file as a data map, (H, W, 4) float32 in [0, 1]."""
        return self._decoded(b"codes", blob, decode_codes)

    def load_model(self, blob: str) -> Raster:
        """A stored model's relief seen from above, (H, W, 2) float32: height in pixels and cover."""
        return self._decoded(b"model", blob, model_relief)

    def load_outline(self, font: str, text: str) -> Outline:
        """The outline of a text in a font, its em 1; without a font ``text`` names a stored drawing."""
        return letters(font, text) if font else outline_of(self._bytes(text), "drawing")

    def _bytes(self, blob: str) -> bytes:
        try:
            return self.blobs[blob]
        except KeyError:
            raise MissingError("stored file", value=blob, remedy="Add the picture again.") from None

    def _decoded(self, kind: bytes, blob: str, decode: Callable[[bytes, str], Raster]) -> Raster:
        key = kind + blob.encode()
        pixels: Raster | None = self.cache.get(key)
        if pixels is None:
            pixels = decode(self._bytes(blob), "source")
            pixels.flags.writeable = False
            self.cache.put(key, pixels)
        return pixels

    def site(self, current: Callable[[], bool] = always) -> Site:
        """The scene as it stands, its models read.

        Raises
        ------
        CancelledError
            when the work that asked has been overtaken while a model was read.
        """
        return Ground().site(self.job, self.models.shapes(self.job, self.blobs, current=current))

    # Evaluation ----------------------------------------------------------------------------------

    def planner(self) -> Planner:
        """A planner of this job's tasks."""
        return Planner(self.job, self.load_pixels, self.load_codes, self.load_model, self.load_outline)

    def evaluation(
        self, current: Callable[[], bool] = always, progress: Callable[[str], None] | None = None
    ) -> Evaluation:
        """A run over tasks, on the shared cache."""
        return Evaluation(self.cache, current, progress)

    def finished(self, surface: Surface, px: int, *, evaluation: Evaluation | None = None) -> MapSet:
        """Every map of a surface with ``px`` pixels on its longer side."""
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
        require_room(grid, spare=self.cache.used)
        maps: MapSet = (evaluation or self.evaluation()).value(self.planner().finished(surface, grid))
        return maps

    def with_curvature(self, surface: Surface, maps: MapSet, *, evaluation: Evaluation | None = None) -> MapSet:
        """A finished set with its curvature map beside it."""
        run = evaluation or self.evaluation()
        return maps.with_maps(curvature=run.value(self.planner().curvature(surface, maps.grid)))

    def sky_picture(self, blob: str) -> Raster | None:
        """An own sky of a stored file as an octahedral map, (S, S, 3) float32; None where its bytes are gone."""
        if blob not in self.blobs:
            return None
        return self._decoded(b"sky", blob, decode_sky)

    def lighting(self, stance: str = WALL, eye: Eye | None = None) -> Lighting:
        """The job's light on a sheet."""
        return Lighting(self.job.rig, stance, eye or Eye(), self.sky_picture)

    def lit(self, surface: Surface, px: int, lighting: Lighting | None = None) -> AnyArray:
        """The lit cell, (H, W, 3) uint8; in the job's own light without another."""
        light = lighting or self.lighting(surface.stance)
        grid = Grid.for_repeat(surface.width_mm, surface.height_mm, px)
        codes: AnyArray = self.evaluation().value(self.planner().lit(surface, grid, light))
        return codes
