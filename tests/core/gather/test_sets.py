"""Files of a folder as sets, by names alone; counted on folders of known truth."""

from collections import Counter

import pytest

from brave_tessel.core.gather.names import MASK, SPECULAR, UNKNOWN
from brave_tessel.core.gather.sets import sets_of_names
from brave_tessel.core.maps import MapKind
from tests.core.gather.naming import folders

HEIGHT, NORMAL, COLOUR = MapKind.HEIGHT.value, MapKind.NORMAL.value, MapKind.BASE_COLOUR.value


def sorted_out(*names):
    """Title to the roles of its files."""
    return {one.title: {m.name: m.reading.role for m in one.members} for one in sets_of_names(names)}


def judged(files):
    """For every file whether it landed in its own set, and in its role."""
    found = {}
    for number, one in enumerate(sets_of_names(files)):
        for member in one.members:
            for name in (member.name, *member.copies):
                found[name] = number, {role for _, role in member.reading.channels} or {UNKNOWN}
    homes = {}
    for name, (truth, _) in files.items():
        homes.setdefault(truth, Counter())[found[name][0]] += 1
    home = {truth: counted.most_common(1)[0][0] for truth, counted in homes.items()}
    crowded = Counter(home.values())
    for name, (truth, role) in files.items():
        number, roles = found[name]
        alike = {role, {"orm": "ambient_occlusion", "roughness": "glossiness"}.get(role, role)}
        bare = roles == {UNKNOWN}
        yield number == home[truth] and crowded[number] == 1, bool(alike & roles), bare


def test_nineteen_in_twenty_land_in_the_right_set_and_role():
    """1 500 files of 120 folders in 20 ways of naming; what no word tells is left to the pixels, not guessed."""
    told = [one for files in folders(120, seed=77) for one in judged(files)]
    assert len(told) > 1200
    assert sum(right for right, *_ in told) / len(told) > 0.98
    assert sum(role for _, role, _ in told) / len(told) > 0.95
    assert sum(not role and not bare for _, role, bare in told) / len(told) < 0.01, "wrong and sure of it"


def test_a_word_within_a_name_does_not_decide():
    assert sorted_out("metal06.png", "metal06_n.png", "metal06_s.png") == {
        "Metal06": {"metal06.png": COLOUR, "metal06_n.png": NORMAL, "metal06_s.png": SPECULAR}
    }
    told = sorted_out("rust_metal_06.png", "rust_metal_06_nrm.png", "rust_metal_06_rough.png")
    assert told["Rust metal 06"]["rust_metal_06.png"] == COLOUR


def test_numbers_tell_sets_apart_and_versions_do_not():
    assert set(sorted_out("rock_diff_01.png", "rock_diff_02.png", "rock_nrm_01.png", "rock_nrm_02.png")) == {
        "Rock 01", "Rock 02"
    }  # fmt: skip
    assert len(sorted_out("wood.jpg", "wood_nrm.jpg", "wood_ao_2.jpg")["Wood"]) == 3


@pytest.mark.parametrize("order", ["{colour}_Color", "Color_{colour}"])
def test_colours_share_one_normal_and_height(order):
    names = [f"Fabric_{order.format(colour=colour)}.png" for colour in ("Red", "Blue")]
    made = sets_of_names([*names, "Fabric_Normal.png", "Fabric_Height.png"])
    assert [one.title for one in made] == ["Fabric red", "Fabric blue"]
    for one in made:
        assert {m.reading.role for m in one.members} == {COLOUR, NORMAL, HEIGHT}
        assert one.shared == {"Fabric_Normal.png", "Fabric_Height.png"}


def test_copies_are_left_aside_the_largest_and_green_up_first():
    (made,) = sets_of_names(
        ["w_diff_1k.jpg", "w_diff_4k.jpg", "w_nor_dx_4k.png", "w_nor_gl_4k.png", "w_disp_4k.png", "w_disp_4k.exr"]
    )
    assert {m.name for m in made.members} == {"w_diff_4k.jpg", "w_nor_gl_4k.png", "w_disp_4k.exr"}
    assert next(m for m in made.members if m.reading.role == NORMAL).reading.green == "up"


def test_channels_of_files_that_hold_several():
    made = {
        one.name: dict(one.reading.channels)
        for group in sets_of_names(["a_MetallicSmoothness.png", "a_AlbedoTransparency.png", "a_ORM.png", "a_rmao.png"])
        for one in group.members
    }
    assert made["a_MetallicSmoothness.png"] == {"r": "metalness", "a": "glossiness"}
    assert made["a_AlbedoTransparency.png"] == {"rgb": "base_colour", "a": "opacity"}
    assert made["a_ORM.png"] == {"r": "ambient_occlusion", "g": "roughness", "b": "metalness"}
    assert made["a_rmao.png"] == {"r": "roughness", "g": "metalness", "b": "ambient_occlusion"}


def test_emission_masks_and_ids_are_roles_and_spaces_are_noted():
    told = sorted_out("p_col.png", "p_emissive.png", "p_mask.png", "p_id.png", "p_normal_object.png", "p_normal.png")
    assert told["P"] == {
        "p_col.png": COLOUR, "p_emissive.png": "emission", "p_mask.png": MASK, "p_id.png": "kind_id",
        "p_normal_object.png": NORMAL, "p_normal.png": NORMAL,
    }  # fmt: skip
    (made,) = sets_of_names(["p_col.png", "p_normal_object.png", "p_normal.png"])
    assert {m.reading.space for m in made.members} == {"", "object"}


def test_a_folder_of_bare_roles_is_named_by_its_folder():
    (made,) = sets_of_names(["albedo.png", "normal.png", "roughness.png"])
    assert made.title == ""
    assert len(made.members) == 3


def test_letters_alone_count_for_nothing():
    assert sorted_out("plan_b.png") == {"Plan b": {"plan_b.png": UNKNOWN}}
    assert sets_of_names([]) == []


@pytest.mark.parametrize(
    "name", ["", ".png", "___.png", "1234.png", "日本.png", "a" * 300 + "_n.png", "n.png", "2k.png"]
)
def test_odd_names_are_a_set_of_their_own(name):
    assert len(sets_of_names([name])) == 1
