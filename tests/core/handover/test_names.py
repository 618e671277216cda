"""Names of files: whatever a pattern from a job says, they stay in the folder and apart."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brave_tessel.core.errors import NotUnderstoodError
from brave_tessel.core.handover.names import check_pattern, distinct_stems, file_stem, name_from


@pytest.mark.parametrize("pattern", ["{surface}_{map}", "{part}-{file}", "x {surface} {file}", "{file}.{surface}"])
def test_plain_patterns_are_taken(pattern):
    check_pattern(pattern)
    made = name_from(pattern, surface="wall", file="height")
    assert "wall" in made
    assert "height" in made


@pytest.mark.parametrize(
    "pattern",
    [
        "../../x_{map}",
        "/etc/{surface}_{file}",
        "{surface}/{file}",
        "{surface}\\{file}",
        "{surface}",
        "{map}",
        "plain",
        "",
        "{surface.__class__}_{file}",
        "{surface[0]}_{file}",
        "{surface!r}_{file}",
        "{surface:>9999999}_{file}",
        "{0}_{file}_{surface}",
        "{surface}_{file}_{home}",
        ".{surface}_{file}",
        "-{surface}_{file}",
        "{surface}_{file}\n",
        "{surface}_{file}\0",
        "{surface}_{file",
        "x" * 200 + "{surface}_{file}",
    ],
)
def test_any_other_is_refused_with_a_sentence(pattern):
    with pytest.raises(NotUnderstoodError):
        name_from(pattern, surface="wall", file="height")


@given(st.text(max_size=40), st.text(max_size=400))
def test_no_pattern_and_no_name_leads_out_of_the_folder(pattern, name):
    stem = file_stem(name)
    assert len(stem.encode()) <= 80
    try:
        made = name_from(pattern + "{surface}_{file}", surface=stem, file="height")
    except NotUnderstoodError:
        return
    assert "/" not in made
    assert made not in {".", ".."}
    assert not made.startswith(".")
    assert made.isprintable()


def test_names_that_come_to_the_same_are_told_apart():
    stems = distinct_stems([("a", "Wall"), ("b", "wall"), ("c", "WALL!"), ("d", "wall 2"), ("e", "…")])
    assert stems == {"a": "wall", "b": "wall-2", "c": "wall-3", "d": "wall-2-2", "e": "surface"}
    assert len({stem.casefold() for stem in stems.values()}) == 5
