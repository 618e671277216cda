"""Folders of map sets: grouped, recognised, and carried through to a surface."""

import msgspec
import numpy as np
import pytest

from brave_tessel.core.handover.conversions import packed_orm, stored
from brave_tessel.core.job.document import Job
from brave_tessel.core.kernels.relief import normal_of_height
from brave_tessel.core.maps import MapKind
from brave_tessel.core.recipe.steps.noise import clouds, pebbles
from brave_tessel.core.sheet import Grid
from brave_tessel.engine.gather.reading import gather_sets, make_source, read_sources
from brave_tessel.engine.gather.trees import skipped_sentence, walk
from brave_tessel.engine.intents import sources as source_intents
from brave_tessel.engine.intents import surfaces as surface_intents
from brave_tessel.engine.intents.sources import add_source
from brave_tessel.engine.session import Session
from brave_tessel.formats.images import encode_png
from brave_tessel.formats.job_file import OpenedJob, load_job

GRID = Grid(192, 192, 240.0, 240.0)


@pytest.fixture(scope="module")
def relief():
    return (pebbles(GRID, size=24, seed=5) * 6).astype(np.float32)


@pytest.fixture
def folder(tmp_path, relief):
    """Two sets in one folder: cobbles with loose files (green down, gloss), plaster with a packed file."""
    normal = normal_of_height(relief, GRID)
    colour = np.stack([clouds(GRID, size=40, seed=s) for s in (1, 2, 3)], 2)
    down = normal * np.array([1, -1, 1], np.float32)
    grey = (relief / relief.max()).astype(np.float32)
    files = {
        "Cobbles_BaseColor_2K.png": encode_png(
            stored(MapKind.BASE_COLOUR, colour, depth=8), width_mm=240, height_mm=240
        ),
        "Cobbles_Normal_2K.png": encode_png(stored(MapKind.NORMAL, down, depth=8)),
        "Cobbles_Gloss_2K.png": encode_png(np.rint((1 - 0.7 * grey) * 255).astype(np.uint8)),
        "Cobbles_Height_2K.png": encode_png(np.rint(grey * 65535).astype(np.uint16)),
        "plaster_albedo.png": encode_png(stored(MapKind.BASE_COLOUR, colour[::-1], depth=8)),
        "plaster_ORM.png": encode_png(packed_orm(grey, 0.3 + 0.5 * grey, 0 * grey)),
        "plaster_nrm.png": encode_png(stored(MapKind.NORMAL, normal, depth=16)),
        "notes.txt": b"not a picture",
        "broken_rough.png": b"\x89PNG nonsense",
    }
    for name, data in files.items():
        (tmp_path / name).write_bytes(data)
    return tmp_path


def sets_of(folder):
    troubles = []
    files = [file for files in walk([folder]).folders.values() for file in files]
    found = gather_sets(files, refused=troubles.append)
    return {one.name: one for one in found}, troubles


def test_files_are_grouped_and_recognised(folder):
    found, troubles = sets_of(folder)
    assert set(found) == {"Cobbles", "Plaster"}
    assert len(troubles) == 1
    roles = {m.role: m for m in found["Cobbles"].maps}
    assert set(roles) == {"base_colour", "normal", "glossiness", "height"}
    assert roles["normal"].green == "down"
    assert "curl" in roles["normal"].reason
    assert "agrees with the height map" in roles["normal"].reason
    assert found["Cobbles"].size_mm == pytest.approx((240, 240))
    assert found["Cobbles"].missing == ()
    packed = {(m.channel, m.role) for m in found["Plaster"].maps}
    assert {("r", "ambient_occlusion"), ("g", "roughness"), ("b", "metalness")} <= packed
    assert found["Plaster"].missing == ("height",)
    assert found["Plaster"].size_mm is None


def test_a_normal_map_turned_over_is_noticed(folder, relief):
    inward = normal_of_height(-relief, GRID) * np.array([1, -1, 1], np.float32)
    (folder / "Cobbles_Normal_2K.png").write_bytes(encode_png(stored(MapKind.NORMAL, inward, depth=8)))
    normal = next(m for m in sets_of(folder)[0]["Cobbles"].maps if m.role == "normal")
    assert normal.turned_over
    assert "goes in" in normal.reason


def surface_of(session, source):
    session.store.dispatch(add_source(source))
    if not source.straightening.sized:
        session.store.dispatch(source_intents.set_size(source, 240.0, 240.0))
    session.store.dispatch(source_intents.set_method(session.job, session.job.source(source.id), "mend.level"))
    command, surface = surface_intents.surface_from_source(session.job, session.job.source(source.id))
    session.store.dispatch(command)
    return surface


def test_given_maps_are_used_and_not_estimated(folder, relief):
    session = Session(OpenedJob(Job()))
    source = make_source(session.intake(), sets_of(folder)[0]["Cobbles"])
    assert (source.kind, len(source.pictures)) == ("map set", 3)
    assert source.straightening.width_mm == 240
    surface = surface_of(session, source)
    maps = session.snapshot().finished(surface, 192)
    grey = relief / relief.max()
    assert np.corrcoef(maps[MapKind.HEIGHT][8:-8, 8:-8].ravel(), grey[8:-8, 8:-8].ravel())[0, 1] > 0.97
    assert np.abs(maps[MapKind.ROUGHNESS] - 0.7 * grey)[8:-8, 8:-8].mean() < 0.03


def test_height_follows_from_a_normal_map_in_true_millimetres(folder):
    smooth = (clouds(GRID, size=60, octaves=3, seed=4) * 8).astype(np.float32)
    (folder / "plaster_nrm.png").write_bytes(
        encode_png(stored(MapKind.NORMAL, normal_of_height(smooth, GRID), depth=16))
    )
    session = Session(OpenedJob(Job()))
    surface = surface_of(session, make_source(session.intake(), sets_of(folder)[0]["Plaster"]))
    height = session.snapshot().finished(surface, 192)[MapKind.HEIGHT]
    inner = (slice(12, -12), slice(12, -12))
    apart = (height - height.mean() - smooth + smooth.mean())[inner]
    assert np.sqrt(np.mean(apart**2)) < 0.1 * smooth.std()


def test_green_set_by_hand_turns_the_relief(folder):
    session = Session(OpenedJob(Job()))
    source = make_source(session.intake(), sets_of(folder)[0]["Plaster"])
    surface = surface_of(session, source)
    before = session.snapshot().finished(surface, 96)[MapKind.HEIGHT]
    normal = next(p for p in source.pictures if p.role == "normal")
    session.store.dispatch(source_intents.set_picture(session.job.source(source.id), normal, green="down"))
    after = session.snapshot().finished(session.job.surfaces[0], 96)[MapKind.HEIGHT]
    assert not np.allclose(before, after, atol=0.05)
    session.store.undo()
    assert (session.snapshot().finished(session.job.surfaces[0], 96)[MapKind.HEIGHT] == before).all()


def test_a_map_set_is_saved_whole(folder, tmp_path):
    session = Session(OpenedJob(Job()))
    source = make_source(session.intake(), sets_of(folder)[0]["Cobbles"])
    session.store.dispatch(add_source(source))
    session.save(tmp_path / "a.tessel")
    back = load_job(tmp_path / "a.tessel")
    assert back.job == session.job
    assert len(back.blobs) == 4


def test_a_set_without_colour_stands_on_grey(folder):
    for name in ("plaster_albedo.png", "plaster_ORM.png"):
        (folder / name).unlink()
    session = Session(OpenedJob(Job()))
    source = make_source(session.intake(), sets_of(folder)[0]["Plaster"])
    assert source.role == "normal"
    surface = surface_of(session, source)
    maps = session.snapshot().finished(surface, 64)
    assert np.ptp(maps[MapKind.BASE_COLOUR]) < 0.02
    assert maps[MapKind.HEIGHT].std() > 0.3
    assert msgspec.structs.asdict(source)["kind"] == "map set"


def test_supplied_normals_come_back_whatever_the_height_says(folder, relief):
    """Normals with grain that the height has not, and a height of no known rise: the normals are the authority."""
    grain = (clouds(GRID, size=6, octaves=4, seed=9) * 0.8).astype(np.float32)
    normal = normal_of_height(relief + grain, GRID) * np.array([1, -1, 1], np.float32)
    (folder / "Cobbles_Normal_2K.png").write_bytes(encode_png(stored(MapKind.NORMAL, normal, depth=16)))
    session = Session(OpenedJob(Job()))
    surface = surface_of(session, make_source(session.intake(), sets_of(folder)[0]["Cobbles"]))
    maps = session.snapshot().finished(surface, 192)
    inner = (slice(20, -20), slice(20, -20))
    for k, sign in ((0, 1), (1, -1)):
        came, given = maps[MapKind.NORMAL][inner][..., k], sign * normal[inner][..., k]
        assert np.corrcoef(came.ravel(), given.ravel())[0, 1] > 0.99
        assert came.std() == pytest.approx(given.std(), rel=0.06)
    assert np.ptp(maps[MapKind.HEIGHT][inner]) == pytest.approx(np.ptp(relief[inner]), rel=0.15)


def test_a_tree_of_folders_is_sorted_by_names_before_anything_is_read(tmp_path):
    for number in range(400):
        place = tmp_path / f"house {number % 7}" / f"set {number}"
        place.mkdir(parents=True)
        for role in ("albedo", "normal", "roughness", "height"):
            (place / f"{role}.png").write_bytes(b"")
        (place / "read me.txt").write_text("hello")
    heard = []
    tree = walk([tmp_path], tell=heard.append)
    made = tree.proposed
    assert len(made) == 400
    assert all(len(one.named.members) == 4 and one.name == one.folder.name for one in made)
    assert len(tree.skipped) == 400
    assert heard[-1] == 2000
    assert "and 396 more" in skipped_sentence(tree.skipped)
    assert walk([tmp_path], current=lambda: False).proposed == []


def test_what_is_passed_over_is_listed_once(folder):
    session = Session(OpenedJob(Job()))
    sources, troubles = read_sources(session.intake(), [folder])
    assert len(sources) == 2
    assert any("notes.txt" in told for told in troubles)
