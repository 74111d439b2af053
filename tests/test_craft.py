"""The worked examples in docs/craft say what the program prints: each is run as a user would type it."""

import re
import shlex
from pathlib import Path

import pytest

from tests.commands import typed

ROOT = Path(__file__).resolve().parent.parent


def examples():
    for document in sorted((ROOT / "docs" / "craft").glob("*.md")):
        for block in re.findall(r"```\n(.*?)```", document.read_text(), re.DOTALL):
            for part in re.split(r"^\$ ", block, flags=re.MULTILINE)[1:]:
                command, _, printed = part.partition("\n")
                yield pytest.param(command, printed.strip(), id=f"{document.stem}: {command}")


@pytest.mark.parametrize(("command", "printed"), list(examples()))
def test_example(command, printed):
    _, *arguments = shlex.split(command)
    done = typed(*arguments)
    assert done.status == 0, done.err
    assert done.out.strip() == printed


def test_every_document_has_examples():
    assert len(list(examples())) >= 8
