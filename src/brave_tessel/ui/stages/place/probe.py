"""What lies under the pointer on the model: where it is, what it belongs to, which place of the surface it shows."""

from __future__ import annotations

import numpy as np

from ....core.place.rays import Hit
from ....core.place.site import Site
from ....core.sheet import AnyArray
from ....engine.pictures.placed import own_surface
from ...desk import Desk
from ...words import tr


class ModelProbe:
    """Tells of places of a site; ``bases`` are the base colours of its surfaces, (H, W, 3) uint8."""

    def __init__(self, desk: Desk) -> None:
        self.desk = desk
        self.site: Site | None = None
        self.bases: dict[str, AnyArray] = {}

    def tell(self, found: Hit | None) -> None:
        if found is None or self.site is None:
            self.desk.tell("", "probe")
            return
        part = found.standing.part
        row = int(found.standing.covering[found.face])
        laid = part.laid[row] if row >= 0 else None
        surface = self.site.surface(laid) if laid else None
        group = tr(str(found.standing.mesh.names[found.standing.mesh.groups[found.face]]))
        x, y, z = (float(value) / 1000 for value in found.point)
        told = surface.name if surface else tr("bare")
        fields = [f"{x:.3f}, {y:.3f}, {z:.3f} m", f"{part.name}, {group} · {told}"]
        if surface is not None:
            fields.append(self._place_on(found, row, *self.site.repeat(part.laid[row])))
        self.desk.tell("\t".join(fields), "probe")

    def _place_on(self, found: Hit, row: int, width: float, height: float) -> str:
        """Where on the surface a point of the model is, and which course."""
        assert self.site is not None
        coordinates = self.site.coordinates(found.standing, row)
        index = np.searchsorted(coordinates.faces, [found.face]).astype(np.int32)
        along, up = coordinates.at(index, found.shares[None])[0]
        told = tr("at {x:.1f}, {y:.1f} mm", x=float(along) % width, y=float(up) % height)
        gauge = self.site.gauge(found.standing.part.laid[row])
        if gauge is None or gauge.courses is None:
            return told
        course = int(np.floor(float(up) / gauge.courses.mm - gauge.courses.start + 1e-6)) + 1
        return tr("course {course} from the datum, {told}", course=course, told=told)

    def colour_at(self, hit: Hit) -> str:
        """The base colour of the model at a point, unlit: of the surface there, or of the bare face."""
        row = int(hit.standing.covering[hit.face])
        part = hit.standing.part
        if self.site is None or row < 0:
            group = str(hit.standing.mesh.names[hit.standing.mesh.groups[hit.face]])
            return part.colours.get(group, part.bare)
        surface = self.site.surface(part.laid[row])
        name = self.site.texture(part.laid[row])
        base = self.bases.get(name, self.bases.get(own_surface(name)))
        if surface is None or base is None:
            return part.bare
        coordinates = self.site.coordinates(hit.standing, row)
        index = np.searchsorted(coordinates.faces, [hit.face]).astype(np.int32)
        along, up = coordinates.at(index, hit.shares[None])[0]
        rows, columns = base.shape[:2]
        width, height = self.site.repeat(part.laid[row])
        c = int(along / width % 1.0 * columns) % columns
        r = rows - 1 - int(up / height % 1.0 * rows) % rows
        red, green, blue = (int(v) for v in base[r, c])
        return f"#{red:02X}{green:02X}{blue:02X}"
