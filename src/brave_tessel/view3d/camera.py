"""A camera that orbits, pans, walks and looks around. Scene in metres, z up."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

Matrix = npt.NDArray[np.float64]
Vector = npt.NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Camera:
    """Looks at ``target`` from ``distance`` m; azimuth 0 looks north, angles in degrees; ``reach`` is its sight."""

    target: tuple[float, float, float] = (2.75, -0.7, 1.25)
    distance: float = 5.3
    azimuth: float = -24.0
    pitch: float = 5.0
    field_of_view: float = 46.0
    reach: float = 60.0

    @property
    def eye(self) -> Vector:
        """Where it stands, m."""
        a, p = math.radians(self.azimuth), math.radians(self.pitch)
        away = np.array([math.sin(a) * math.cos(p), -math.cos(a) * math.cos(p), math.sin(p)])
        return np.array(self.target) + away * self.distance

    def axes(self) -> tuple[Vector, Vector, Vector]:
        """Right, up and forward unit vectors."""
        forward = np.array(self.target) - self.eye
        forward /= np.linalg.norm(forward)
        right = np.cross(forward, [0.0, 0.0, 1.0])
        right /= np.linalg.norm(right)
        return right, np.cross(right, forward), forward

    def view_projection(self, aspect: float) -> Matrix:
        """World to clip space, (4, 4), for a picture so many times as wide as high."""
        right, up, forward = self.axes()
        view = np.eye(4)
        view[:3, :3] = np.stack([right, up, -forward])
        view[:3, 3] = -view[:3, :3] @ self.eye
        return perspective(self.field_of_view, aspect, max(0.02, self.reach / 1500), self.reach) @ view

    def ray(self, x: float, y: float, aspect: float) -> tuple[Vector, Vector]:
        """Origin and unit direction through a point of the picture, both −1 to 1, y up."""
        right, up, forward = self.axes()
        half = math.tan(math.radians(self.field_of_view) / 2)
        direction = forward + right * (x * half * aspect) + up * (y * half)
        return self.eye, direction / np.linalg.norm(direction)

    def orbited(self, right: float, down: float) -> Camera:
        """The camera turned about its target, degrees."""
        pitch = min(85.0, max(-20.0, self.pitch + down))
        return replace(self, azimuth=self.azimuth - right, pitch=pitch)

    def panned(self, right: float, up: float) -> Camera:
        """Slide by fractions of the picture's height."""
        r, u, _ = self.axes()
        reach = 2 * self.distance * math.tan(math.radians(self.field_of_view) / 2)
        moved = np.array(self.target) - r * right * reach + u * up * reach
        return replace(self, target=tuple(float(v) for v in moved))  # type: ignore[arg-type]

    def walked(self, steps: float, toward: Vector | None = None) -> Camera:
        """Walk in (positive) or back; close up the target is pushed ahead, so one can walk on."""
        distance = self.distance * 0.9**steps
        if distance < 0.8 and steps > 0:
            _, _, forward = self.axes()
            ahead = np.array(self.target) + (toward if toward is not None else forward) * 0.12 * steps
            return replace(self, target=tuple(float(v) for v in ahead))  # type: ignore[arg-type]
        return replace(self, distance=min(max(30.0, self.reach / 2), max(0.3, distance)))

    def looking(self, right: float, down: float) -> Camera:
        """Looks elsewhere from where it stands, degrees."""
        turned = replace(self, azimuth=self.azimuth + right, pitch=min(80.0, max(-80.0, self.pitch + down)))
        moved = np.array(turned.target) + self.eye - turned.eye
        return replace(turned, target=tuple(float(v) for v in moved))  # type: ignore[arg-type]

    def stepped(self, ahead: float, aside: float, up: float = 0.0) -> Camera:
        """Goes over level ground by so many metres ahead, to the right and up."""
        right, _, forward = self.axes()
        level = np.array([forward[0], forward[1], 0.0])
        level /= max(float(np.linalg.norm(level)), 1e-9)
        moved = np.array(self.target) + ahead * level + aside * right + np.array([0.0, 0.0, up])
        return replace(self, target=tuple(float(v) for v in moved))  # type: ignore[arg-type]

    def framing(self, low: Vector, high: Vector) -> Camera:
        """Sees a whole box (m) from the side it looks from now."""
        middle = (low + high) / 2
        radius = max(float(np.linalg.norm(high - low)) / 2, 0.05)
        away = radius / math.sin(math.radians(self.field_of_view) / 2)
        return replace(
            self,
            target=tuple(float(v) for v in middle),  # type: ignore[arg-type]
            distance=away,
            reach=max(60.0, away + 4 * radius),
        )


def from_points(at: Vector, toward: Vector, *, angle: float = 46.0, reach: float = 60.0) -> Camera:
    """A camera that stands at one point and looks at another, m."""
    away = np.asarray(at, float) - np.asarray(toward, float)
    distance = max(float(np.linalg.norm(away)), 1e-6)
    pitch = math.degrees(math.asin(max(-1.0, min(1.0, away[2] / distance))))
    azimuth = math.degrees(math.atan2(away[0], -away[1]))
    x, y, z = (float(v) for v in toward)
    return Camera((x, y, z), distance, azimuth, pitch, angle, reach)


def perspective(field_of_view: float, aspect: float, near: float, far: float) -> Matrix:
    """OpenGL clip space."""
    f = 1 / math.tan(math.radians(field_of_view) / 2)
    out = np.zeros((4, 4))
    out[0, 0], out[1, 1] = f / aspect, f
    out[2, 2], out[2, 3] = (far + near) / (near - far), 2 * far * near / (near - far)
    out[3, 2] = -1
    return out


def orthographic_fitted(
    light: Vector,
    low: Vector,
    high: Vector,
    shift: tuple[float, float] = (0.0, 0.0),
    held: npt.NDArray[np.float64] | None = None,
) -> tuple[Matrix, float, float]:
    """The view of a distant light that just holds a box; its width and its depth in the units of the box. ``shift``
    moves it by shares of its width, so that edges of added-up shadows fall elsewhere each time. With places (N, 3)
    that are ``held`` it is no wider than these; what lies between them and the light is still in it.
    """
    forward = -light / np.linalg.norm(light)
    helper = np.array([0.0, 0.0, 1.0]) if abs(forward[2]) < 0.95 else np.array([1.0, 0.0, 0.0])
    right = np.cross(forward, helper)
    right /= np.linalg.norm(right)
    axes = np.stack([right, np.cross(right, forward), -forward])
    corners = np.array([[x, y, z] for x in (low[0], high[0]) for y in (low[1], high[1]) for z in (low[2], high[2])])
    seen = corners @ axes.T
    least, most = seen.min(0), seen.max(0)
    if held is not None and len(held):
        flat = held @ axes[:2].T
        room = 0.03 * np.ptp(flat, axis=0) + 0.05
        least[:2], most[:2] = np.maximum(least[:2], flat.min(0) - room), np.minimum(most[:2], flat.max(0) + room)
    middle, half = (least + most) / 2, (most - least) / 2 * 1.02 + 0.01
    out = np.eye(4)
    out[:3, :3] = axes / half[:, None]
    out[:3, 3] = -middle / half + [shift[0], shift[1], 0.0]
    out[2] = -out[2]
    out[2, 3] = middle[2] / half[2]
    return out, float(2 * max(half[0], half[1])), float(2 * half[2])
