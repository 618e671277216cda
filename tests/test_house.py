"""The house itself: what is declared, shipped, cited and licensed is really there."""

import ast
import re
import sys
import tomllib
from fnmatch import fnmatch
from importlib.metadata import packages_distributions
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
SOURCE = ROOT / "src" / "brave_tessel"
PROJECT = tomllib.loads((ROOT / "pyproject.toml").read_text())


def python_files(*folders: str) -> list[Path]:
    return sorted(path for folder in folders for path in (ROOT / folder).rglob("*.py"))


def imported(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            found |= {alias.name.split(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.level == 0 and node.module:
            found.add(node.module.split(".")[0])
    return found - set(sys.stdlib_module_names) - {"brave_tessel"}


def plain(name: str) -> str:
    """The name of a distribution as PEP 503 compares it."""
    return re.sub(r"[-_.]+", "-", re.split(r"[<>=!~ \[]", name)[0]).lower()


def test_every_package_that_is_imported_is_declared():
    declared = {plain(name) for name in PROJECT["project"]["dependencies"]}
    owners = packages_distributions()
    missing = {
        module
        for path in python_files("src")
        for module in imported(path)
        if not {plain(owner) for owner in owners.get(module, [module])} & declared
    }
    assert missing == set()


def test_every_declared_package_is_imported_and_pinned():
    modules = {module for path in python_files("src") for module in imported(path)}
    # trimesh reads COLLADA by it.
    behind = {"pycollada"}
    used = behind | {plain(owner) for module in modules for owner in packages_distributions().get(module, [module])}
    pinned = {plain(line) for line in (ROOT / "requirements/base.txt").read_text().split()}
    declared = {plain(name) for name in PROJECT["project"]["dependencies"]}
    assert declared - used == set()
    assert declared - pinned == set()


def test_what_the_program_reads_beside_its_code_is_packed():
    patterns = PROJECT["tool"]["setuptools"]["package-data"]["brave_tessel"]
    beside = [
        str(path.relative_to(SOURCE))
        for path in SOURCE.rglob("*")
        if path.is_file() and path.suffix not in {".py", ".pyc", ".nbi", ".nbc"} and "__pycache__" not in path.parts
    ]
    assert "demo/shipped/job.json" in beside
    assert [name for name in beside if not any(fnmatch(name, pattern) for pattern in patterns)] == []


def test_every_icon_is_used_and_every_used_icon_ships():
    drawn = {path.stem for path in (SOURCE / "ui/assets/icons").glob("*.svg")}
    said = "\n".join(path.read_text() for path in python_files("src/brave_tessel/ui"))
    assert {name for name in drawn if f'"{name}"' not in said and f"{name}.svg" not in said} == set()


def test_licences_name_what_ships():
    told = (ROOT / "LICENSES/README.md").read_text()
    own = {path.name for path in (SOURCE / "ui/assets/icons").glob("*.svg") if "icon-tabler" not in path.read_text()}
    assert {name for name in own if name not in told} == set()
    for text in re.findall(r"[\w.-]+\.txt", told):
        assert (ROOT / "LICENSES" / text).is_file()
    for font in (SOURCE / "ui/assets/fonts").iterdir():
        family, weight = font.name.split("-latin-")
        assert family.removeprefix("ibm-plex-").capitalize() in told
        assert weight.split("-")[0] in told


VALUES = (ROOT / "docs/check-values.md").read_text()


def test_every_cited_check_value_can_be_followed():
    explained = set(re.findall(r"^\| ([A-F]\d+) \|", VALUES, re.MULTILINE))
    cited = {
        letter
        for path in python_files("tests")
        for said in re.findall(r"check-values ((?:[A-F]\d+(?:,\s*| and )?)+)", path.read_text())
        for letter in re.findall(r"[A-F]\d+", said)
    }
    assert len(cited) > 12
    assert cited - explained == set()


@pytest.mark.parametrize("name", sorted(set(re.findall(r"`(tests/[\w/]+\.py)`", VALUES))))
def test_check_values_name_tests_that_exist(name):
    assert (ROOT / name).is_file()


def test_no_module_is_too_long_to_read():
    too_long = {
        str(path.relative_to(ROOT)): lines
        for path in python_files("src", "tests", "bench")
        if (lines := path.read_text().count("\n")) > 500
    }
    assert too_long == {}


def test_names_meant_to_be_private_stay_so():
    """No module reaches into another object's underscored names, but for what libraries force."""
    reached = [
        f"{path.relative_to(ROOT)}:{node.lineno}"
        for path in python_files("src")
        for node in ast.walk(ast.parse(path.read_text()))
        if isinstance(node, ast.Attribute)
        and node.attr.startswith("_")
        and not node.attr.startswith("__")
        and not (isinstance(node.value, ast.Name) and node.value.id in {"self", "cls"})
    ]
    assert len(reached) <= 2, reached
