import re
from pathlib import Path

import pytest

from brave_tessel.core.operation import REGISTRY
from brave_tessel.engine.reference import operations_text, schema_text

DOCS = Path(__file__).parents[2] / "docs"


@pytest.mark.parametrize(("name", "made"), [("operations.md", operations_text), ("job.schema.json", schema_text)])
def test_the_written_reference_is_current(name, made):
    """Run ./dev docs when this fails."""
    assert (DOCS / name).read_text(encoding="utf-8") == made()


def test_every_operation_is_written_down():
    text = operations_text()
    for operation in REGISTRY.values():
        assert f"### {operation.label}\n" in text
        for param in operation.params.values():
            assert f"| {param.label} | " in text
            assert param.help in text


def test_it_is_written_for_people():
    text = operations_text()
    assert not re.search(r"`|_|\de[+-]\d|:\w+:", text)
