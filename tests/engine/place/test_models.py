"""Models brought into a scene: parts, places, units; read again when their file changes; let go and read anew."""

import msgspec
import numpy as np
import pytest
import trimesh

from brave_tessel.core.job.document import Job
from brave_tessel.core.job.scene import Laid
from brave_tessel.core.place.picked import packed
from brave_tessel.engine.gather.intake import Intake
from brave_tessel.engine.gather.links import linked_files, missing_files, relink, reread, take_over
from brave_tessel.engine.place.bring import add_parts, bring, parts_of, resize, told_of
from brave_tessel.engine.session import Session
from brave_tessel.formats.job_file import OpenedJob, load_job, used_blobs


def write(path, *boxes):
    """A GLB of named boxes: (name, size, place), metres, y up."""
    scene = trimesh.Scene()
    for name, size, at in boxes:
        scene.add_geometry(
            trimesh.creation.box(size), node_name=name, geom_name=name,
            transform=trimesh.transformations.translation_matrix(at),
        )  # fmt: skip
    path.write_bytes(scene.export(file_type="glb"))
    return path


TWO = (("Wall", (4, 3, 0.2), (0, 1.5, 0)), ("Step", (1, 0.16, 0.3), (3, 0.08, 2)))


@pytest.fixture
def brought(tmp_path):
    session = Session(OpenedJob(Job()))
    path = write(tmp_path / "house.glb", *TWO)
    return session, path, bring(path, session.kept, session.models)


def put(session, found, **more):
    parts = parts_of(found, **more)
    session.store.dispatch(add_parts(parts))
    return parts


def test_its_parts_stand_where_the_file_has_them_in_mm_with_z_up(brought):
    session, _, found = brought
    whole, *parts = put(session, found)
    assert whole.name == "house"
    assert [part.name for part in parts] == ["Wall", "Step"]
    site = session.snapshot().site()
    low, high = site.of_part(parts[0].id).mesh.box
    assert (low, high) == (pytest.approx((-2000, -100, 0), abs=1e-3), pytest.approx((2000, 100, 3000), abs=1e-3))
    low, high = site.of_part(parts[1].id).mesh.box
    assert (low + high) / 2 == pytest.approx((3000, -2000, 80), abs=1e-3)
    assert parts[0].model.size_mm == pytest.approx((4000, 200, 3000))
    assert "in m" in told_of(found)


def test_another_unit_sizes_places_and_parts_alike(brought):
    session, _, found = brought
    _, wall, step = put(session, found)
    before = session.snapshot().site()
    session.store.dispatch(resize(session.job, wall.model.blob, unit_mm=10.0, up="y"))
    after = session.snapshot().site()
    for part in (wall, step):
        assert after.of_part(part.id).mesh.box == pytest.approx(np.array(before.of_part(part.id).mesh.box) / 100)
    session.store.dispatch(resize(session.job, wall.model.blob, unit_mm=10.0, up="z"))
    low, high = session.snapshot().site().of_part(wall.id).mesh.box
    assert high - low == pytest.approx((40, 30, 2))


def test_a_saved_job_brings_its_models_along(brought, tmp_path):
    session, _, found = brought
    put(session, found)
    session.save(tmp_path / "a.tessel")
    opened = load_job(tmp_path / "a.tessel")
    assert used_blobs(opened.job) == {found.blob} == set(opened.blobs)
    site = Session(opened).snapshot().site()
    assert sum(one.mesh.count for one in site.standing) == 24


def test_a_model_whose_bytes_are_gone_stays_in_the_job(brought):
    session, _, found = brought
    put(session, found)
    other = Session(OpenedJob(session.job, {}))
    site = other.snapshot().site()
    assert len(site.standing) == 2
    assert sum(one.mesh.count for one in site.standing) == 0


def test_a_linked_model_that_changes_keeps_what_is_laid_on_it(brought):
    session, path, found = brought
    _, wall, _ = put(session, found, linked=True)
    mesh = session.snapshot().site().of_part(wall.id).made.mesh
    front = np.flatnonzero(mesh.normals[:, 1] < -0.9).astype(np.int32)
    laid = Laid(id="l", surface="s", picked=packed(front, mesh))
    value = msgspec.structs.replace(session.job.scene.part(wall.id), laid=(laid,))
    from brave_tessel.core.job.commands import Set

    session.store.dispatch(Set(path=("scene", "parts", wall.id), value=value, label="x"))
    # The wall grows by a little and loses its step; a column is new.
    write(path, ("Wall", (4.0, 3.0, 0.2), (0, 1.5, 0)), ("Column", (0.3, 3, 0.3), (1, 1.5, 1)))
    (link,) = linked_files(session.job)
    assert link.model
    assert missing_files(session.job) == []
    read, troubles = reread(Intake(session.kept, session.cache), [link])
    assert troubles == []
    command, names = take_over(session.job, read)
    session.store.dispatch(command)
    assert names == ["house.glb"]
    site = session.snapshot().site()
    one = site.of_part(wall.id)
    faces = one.faces_of(0)
    assert len(faces) == 2
    assert (one.mesh.normals[faces][:, 1] < -0.9).all()
    step = next(part for part in session.job.scene.parts if part.name == "Step")
    assert site.of_part(step.id).mesh.count == 0


def test_a_model_that_moved_is_followed_to_its_new_place(brought, tmp_path):
    session, path, found = brought
    put(session, found, linked=True)
    path.rename(tmp_path / "villa.glb")
    (link,) = missing_files(session.job)
    session.store.dispatch(relink(session.job, {link.path: str(tmp_path / "villa.glb")}))
    assert missing_files(session.job) == []


def test_what_cannot_be_read_is_told_once_and_asked_no_more():
    session = Session(OpenedJob(Job(), {"b": b"nonsense"}))
    from brave_tessel.core.job.scene import Model, Part, Scene

    part = Part(id="p", name="p", model=Model(blob="b", part="x"))
    job = Job(scene=Scene(parts=(part,)))
    shapes = session.models.shapes(job, {"b": b"nonsense"})
    assert shapes == {}
    assert "b" in session.models.faults
    assert session.models.missing(job) == []
