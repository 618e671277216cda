"""The programs a scene is drawn by."""

from __future__ import annotations

from pathlib import Path
from typing import Any

Kind = frozenset[str]
"""What a part's program has to do: MOVING (else at rest), SIDED (a three-sided laying), FINISHED, RELIEF,
CHEQUER (squares of 100 mm), FLAT (without light), NEAR (relief as a mesh)."""
_SHADERS = Path(__file__).parent / "shaders"


class Programs:
    """Compiled once for a context. What a part does not have is not in its program: software works out both sides of
    a branch.
    """

    def __init__(self, context: Any) -> None:
        self.context = context
        self._parts: dict[Kind, Any] = {}
        self.depth = self._made("depth", "depth")
        self.cut = self._made("cut", "cut")
        self.mark = self._made("depth", "mark")
        self.sky = self._made("full", "sky")
        self.add = self._made("full", "add")

    def part(self, kind: Kind) -> Any:
        """That of parts of a kind; compiled when it is first asked for."""
        if kind not in self._parts:
            near = "NEAR" in kind
            self._parts[kind] = self._made("near" if near else "part", "part", *sorted(kind), divided=near)
        return self._parts[kind]

    @property
    def divides(self) -> bool:
        """Whether the driver can divide faces (OpenGL 4.0)."""
        return bool(self.context.version_code >= 400)

    def _made(self, vertex: str, fragment: str, *defines: str, divided: bool = False) -> Any:
        def text(name: str) -> str:
            first, rest = (_SHADERS / f"{name}.glsl").read_text(encoding="utf-8").split("\n", 1)
            return "\n".join([first, *(f"#define {word}" for word in defines), rest])

        between = {
            "tess_control_shader": text(f"{vertex}.tesc"), "tess_evaluation_shader": text(f"{vertex}.tese")
        } if divided else {}  # fmt: skip
        return self.context.program(
            vertex_shader=text(f"{vertex}.vert"), fragment_shader=text(f"{fragment}.frag"), **between
        )  # fmt: skip

    def release(self) -> None:
        """Give them back to the driver."""
        for program in (*self._parts.values(), self.depth, self.cut, self.mark, self.sky, self.add):
            program.release()
