"""Adding one thing is adding one file: a file of each sort is put into its room, and the program has it."""

import subprocess
import sys
import textwrap

import pytest

STEP = '''
"""Stripes along the sheet."""
from typing import Annotated
import numpy as np
from brave_tessel.core.operation import Field, Fraction, operation
from brave_tessel.core.sheet import Grid

@operation("test.stripes", label="Stripes")
def stripes(grid: Grid, *, share: Annotated[float, Fraction(help="How much of the sheet is bright.")] = 0.25) -> Field:
    """Bright on the left share of the sheet."""
    made = np.zeros(grid.shape, np.float32)
    made[:, : round(share * grid.width_px)] = 1
    return made
'''

RULE = STEP.replace("test.stripes", "where.stripes")

KIND = '''
"""A layer that is one grey."""
from functools import partial
import numpy as np
from brave_tessel.core.buildup.form_rows import Note
from brave_tessel.core.buildup.kind import LayerKind, layer_kind
from brave_tessel.core.job.layers import What
from brave_tessel.core.job.nodes import Node
from brave_tessel.core.maps import MapKind, MapSet
from brave_tessel.core.plan.tasks import Task, task_key

class GreyWhat(Node, What, frozen=True, kw_only=True, tag="grey"):
    tone: float = 0.5

@layer_kind(GreyWhat, label="Grey")
class GreyKind(LayerKind):
    """One grey."""

    def maps(self, planner, layer, grid, below):
        return Task(task_key("grey", layer.what.tone, grid), layer.name, layer.id, partial(made, layer.what.tone, grid))

    def form(self, job, surface, layer):
        yield Note("A grey.")

def made(tone, grid):
    return MapSet(grid, {MapKind.BASE_COLOUR: np.full((*grid.shape, 3), tone, np.float32)})
'''

METHOD = '''
"""The sheet as it is."""
from typing import ClassVar
from brave_tessel.core.repeat.method import Method, mending

@mending("mend.as_it_is", label="As it is")
class AsItIs(Method):
    """Nothing is done to the sheet."""

    note: ClassVar[str] = "the sheet closes already"

    def apply(self, flat, found):
        return flat
'''

CHECK = '''
"""A name is given."""
from brave_tessel.core.handover.check import Case, Finding, check

@check("named")
def named(case: Case) -> Finding:
    return Finding("named", case.surface.id, "ok" if case.surface.name else "caution", "Name", "It has a name.")
'''

PIECE = '''
"""A plinth."""
from typing import Annotated
from brave_tessel.core.operation import Length
from brave_tessel.core.place.piece import Drawn, Made, piece
from brave_tessel.core.place.solids import extruded, rectangle

@piece("plinth", label="Plinth")
def plinth(_drawn: Drawn, *, side: Annotated[float, Length(10, 900, help="Its side.")] = 300.0) -> Made:
    """A square plinth."""
    return Made(extruded([rectangle(0, 0, side, side)], 200.0, sides=[["side"] * 4]))
'''

LAYING = '''
"""Laid as seen from above."""
from brave_tessel.core.place.laying import Bed, Coordinates, even, laying

@laying("above", label="From above")
def above(bed: Bed) -> Coordinates:
    """Seen from above, whatever leans."""
    return even(bed.mesh, bed.faces, bed.corners[..., :2] - bed.datum[:2])
'''

OUTPUT = '''
"""The names of the surfaces."""
from brave_tessel.engine.handover.output import Output, Planned, output

@output("names-txt", label="Names (.txt)")
class Names(Output):
    """One text."""

    def planned(self, job, delivery, surfaces):
        return [Planned("names.txt", "Names", 8, 20 * len(surfaces))]

    def write(self, writing):
        path = writing.folder / "names.txt"
        path.write_text("\\\\n".join(surface.name for surface in writing.surfaces))
        return [path]
'''

BEFORE = """
import sys, pathlib
import brave_tessel.{room} as room
room.__path__.append({folder!r})
from brave_tessel.core import registered
"""

ASKED = {
    "core.recipe.steps": (
        STEP,
        """
        from brave_tessel.core.operation import REGISTRY, find
        from brave_tessel.core.sheet import Grid
        made = find("test.stripes").run(Grid(8, 8, 10, 10), **find("test.stripes").bind({"share": 0.5}))
        assert made.sum() == 32
        from brave_tessel.engine.reference import operations_text
        assert "Stripes" in operations_text()
        """,
    ),
    "core.buildup.rules": (
        RULE,
        """
        from brave_tessel.core.buildup.kinds.plain import PlainWhat
        from brave_tessel.core.job.document import Job
        from brave_tessel.core.job.layers import Layer, Rule, Surface
        from brave_tessel.core.job.nodes import Setting
        from brave_tessel.core.maps import MapKind
        from brave_tessel.engine.session import Session
        from brave_tessel.formats.job_file import OpenedJob
        where = (Rule(id="r", mode="keep", rule=Setting(op="where.stripes")),)
        layers = (
            Layer(id="a", name="A", what=PlainWhat(colour="#000000")),
            Layer(id="b", name="B", what=PlainWhat(colour="#FFFFFF"), seat=Setting(op="seat.over"), where=where),
        )
        job = Job(surfaces=(Surface(id="s", name="S", width_mm=40.0, height_mm=40.0, layers=layers),))
        maps = Session(OpenedJob(job)).snapshot().finished(job.surface("s"), 16)
        assert abs(maps[MapKind.BASE_COLOUR].mean() - 0.25) < 1e-3
        """,
    ),
    "core.buildup.kinds": (
        KIND,
        """
        from brave_tessel.core.buildup.kind import KINDS
        from brave_tessel.core.job.document import Job
        from brave_tessel.core.job.layers import Layer, Surface
        from brave_tessel.core.maps import MapKind
        from brave_tessel.engine.session import Session
        from brave_tessel.formats.documents import decode_job, encode_job
        from brave_tessel.formats.job_file import OpenedJob
        layer = Layer(id="a", name="A", what=KINDS["grey"].fresh(Job(), None, "Grey"))
        job = Job(surfaces=(Surface(id="s", name="S", width_mm=40.0, height_mm=40.0, layers=(layer,)),))
        assert decode_job(encode_job(job)) == job
        maps = Session(OpenedJob(job)).snapshot().finished(job.surface("s"), 16)
        assert abs(maps[MapKind.BASE_COLOUR].mean() - 0.5) < 1e-6
        assert KINDS["grey"].offers(job, None) == ["Grey"]
        """,
    ),
    "core.repeat.methods": (
        METHOD,
        """
        from brave_tessel.core.job.nodes import Setting
        from brave_tessel.core.repeat.method import METHODS, method_of
        assert "mend.as_it_is" in METHODS
        assert method_of(Setting(op="mend.as_it_is")).apply("the sheet", None) == "the sheet"
        from brave_tessel.core.operation import find
        assert find("mend.as_it_is").label == "As it is"
        """,
    ),
    "core.handover.checks": (
        CHECK,
        """
        from brave_tessel.core.handover.check import run_checks
        from brave_tessel.core.job.document import Job
        from brave_tessel.core.job.layers import Surface
        from brave_tessel.engine.session import Session
        from brave_tessel.formats.job_file import OpenedJob
        surface = Surface(id="s", name="S", width_mm=40.0, height_mm=40.0)
        job = Job(surfaces=(surface,))
        maps = Session(OpenedJob(job)).snapshot().finished(surface, 32)
        found = {f.check: f.severity for f in run_checks(job, surface, maps)}
        assert found["named"] == "ok"
        """,
    ),
    "core.place.pieces": (
        PIECE,
        """
        from brave_tessel.core.job.scene import Piece
        from brave_tessel.core.place.piece import made
        found = made(Piece(op="made.plinth", values={"side": 120.0}))
        assert found.mesh.box[1][0] == 120.0
        from brave_tessel.core.operation import family
        assert "Plinth" in [entry.label for entry in family("made")]
        """,
    ),
    "core.place.layings": (
        LAYING,
        """
        import numpy as np
        from brave_tessel.core.job.document import Job
        from brave_tessel.core.job.nodes import Setting
        from brave_tessel.core.job.scene import Laid, Part, Piece, Scene
        from brave_tessel.core.place.site import site_of
        on = Laid(id="l", surface="s", laying=Setting(op="laying.above", values={"factor": 2.0}))
        box = Part(id="b", name="B", piece=Piece(op="made.box", values={"bevel": 0.0}), laid=(on,))
        site = site_of(Job(scene=Scene(parts=(box,))))
        found = site.coordinates(site.standing[0], 0)
        assert np.allclose(np.ptp(found.flat_corners(), axis=(0, 1)), 500.0)
        """,
    ),
    "engine.handover.outputs": (
        OUTPUT,
        """
        import tempfile
        import msgspec
        from brave_tessel.core.job.document import Job
        from brave_tessel.core.job.layers import Surface
        from brave_tessel.engine.handover.deliver import deliver, planned_files
        from brave_tessel.engine.handover.output import Writing
        from brave_tessel.engine.session import Session
        from brave_tessel.formats.job_file import OpenedJob
        surfaces = (Surface(id="s", name="Wall", width_mm=40.0, height_mm=40.0),)
        session = Session(OpenedJob(Job(surfaces=surfaces)))
        delivery = msgspec.structs.replace(session.job.deliveries[0], outputs=("names-txt",))
        assert [planned.name for planned in planned_files(session.job, delivery, surfaces)] == ["names.txt"]
        folder = pathlib.Path(tempfile.mkdtemp())
        (written,) = deliver(Writing(session.snapshot(), delivery, surfaces, folder))
        assert written.read_text() == "Wall"
        """,
    ),
}


@pytest.mark.parametrize("room", sorted(ASKED))
def test_a_file_in_its_room_is_all_it_takes(room, tmp_path):
    source, asked = ASKED[room]
    (tmp_path / "added_for_the_test.py").write_text(source.replace("\\\\", "\\"))
    code = BEFORE.format(room=room, folder=str(tmp_path)) + textwrap.dedent(asked)
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, timeout=120, check=False)
    assert done.returncode == 0, done.stderr[-1500:]
