"""The worked examples in docs/craft say what the program prints: each is run as a user would type it."""

import re
import shlex
import subprocess
import sys
from pathlib import Path

import pytest

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
    done = subprocess.run([sys.executable, "-m", "tidy_trunk", *arguments], cwd=ROOT, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr
    assert done.stdout.strip() == printed


def test_every_document_has_examples():
    assert len(list(examples())) >= 8
