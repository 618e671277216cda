"""The programs a scene is drawn by."""

from __future__ import annotations

from pathlib import Path
from typing import Any

_SHADERS = Path(__file__).parent / "shaders"


class Programs:
    """Compiled once for a context. Parts have one while moving and one at rest, each also for three-sided layings."""

    def __init__(self, context: Any) -> None:
        self.context = context
        self._moving = (self._made("part", "part", "MOVING"), self._made("part", "part", "SIDED", "MOVING"))
        self._rest = (self._made("part", "part"), self._made("part", "part", "SIDED"))
        self.depth = self._made("depth", "depth")
        self.cut = self._made("cut", "cut")
        self.mark = self._made("depth", "mark")
        self.sky = self._made("full", "sky")
        self.add = self._made("full", "add")

    def of(self, *, moving: bool) -> tuple[Any, Any]:
        """Those of plain and of three-sided layings."""
        return self._moving if moving else self._rest

    def _made(self, vertex: str, fragment: str, *defines: str) -> Any:
        def text(name: str) -> str:
            first, rest = (_SHADERS / f"{name}.glsl").read_text(encoding="utf-8").split("\n", 1)
            return "\n".join([first, *(f"#define {word}" for word in defines), rest])

        return self.context.program(
            vertex_shader=text(f"{vertex}.vert"), fragment_shader=text(f"{fragment}.frag")
        )  # fmt: skip

    def release(self) -> None:
        """Give them back to the driver."""
        for program in (*self._moving, *self._rest, self.depth, self.cut, self.mark, self.sky, self.add):
            program.release()
