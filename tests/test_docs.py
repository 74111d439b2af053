"""What the documents promise is there, and what is there is documented."""

import ast
import re
from pathlib import Path

from scripts.make_rules_page import page
from tidy_trunk.core.advice import checks
from tidy_trunk.core.advice.checks import RULES
from tidy_trunk.settings import EnvironmentSettings
from tidy_trunk.words import SOURCE_WORDS

ROOT = Path(__file__).resolve().parent.parent
SOURCES = (ROOT / "docs" / "sources.md").read_text()
TAGS = set(re.findall(r"^\| ([A-Z0-9-]+) \|", SOURCES, re.MULTILINE))
TAG = re.compile(r"\[([A-Z][A-Z0-9-]{2,})\]")


def constants():
    """(module, name, docstring) of every public module constant of the core."""
    for path in (ROOT / "tidy_trunk" / "core").rglob("*.py"):
        body = ast.parse(path.read_text()).body
        for at, node in enumerate(body):
            if not (isinstance(node, ast.AnnAssign) and isinstance(node.target, ast.Name)):
                continue
            name = node.target.id
            if name.startswith("_") or not name.isupper() or "Final" not in ast.unparse(node.annotation):
                continue
            after = body[at + 1] if at + 1 < len(body) else None
            text = after.value.value if isinstance(after, ast.Expr) and isinstance(after.value, ast.Constant) else ""
            if path.parent.name != "classes" or name not in {"XLR_IN", "XLR_OUT", "JACK_SOCKET", "JACK_PLUG", "STEREO"}:
                yield path.relative_to(ROOT), name, str(text)


def test_every_constant_names_its_source():
    bare = [
        f"{path}: {name}"
        for path, name, text in constants()
        if not TAG.search(text) and "ASSUMED_" not in text and name not in {"DIGITAL_IN", "DIGITAL_OUT"}
    ]
    assert not bare


def test_every_tag_is_listed():
    for path in (ROOT / "tidy_trunk").rglob("*.py"):
        unknown = set(TAG.findall(path.read_text())) - TAGS - {"UUID"}  # a type in brackets
        assert not unknown, f"{path}: {unknown}"
    rules = [*Path(checks.__file__ or "").parent.glob("rules/*.py")]
    assert len(rules) > 10
    for path in rules:
        assert set(re.findall(r'source="([^"]+)"', path.read_text())) <= TAGS & set(SOURCE_WORDS)


def test_every_rule_says_what_it_is():
    assert len(RULES) >= 14
    for name, function in RULES.items():
        assert (
            function.__doc__ and TAG.search(function.__doc__ or "[HANDBOOK]") is not None
        ) or name == "track-without-source"


def test_every_link_of_the_documents_leads_somewhere():
    for document in [ROOT / "README.md", ROOT / "CONTRIBUTING.md", *(ROOT / "docs").rglob("*.md")]:
        for target in re.findall(r"\]\(([^)#]+)\)", document.read_text()):
            assert (document.parent / target).exists(), f"{document.name}: {target}"


def test_every_setting_is_in_the_readme():
    readme = (ROOT / "README.md").read_text()
    for name, field in EnvironmentSettings.model_fields.items():
        assert field.description
        assert f"TIDY_TRUNK_{name.upper()}" in readme or name == "web"


def test_every_screenshot_is_shown():
    shown = (ROOT / "docs" / "pictures.md").read_text()
    for picture in (ROOT / "docs" / "screenshots").glob("*.png"):
        assert f"(screenshots/{picture.name})" in shown


def test_the_page_of_the_rules_is_up_to_date():
    """Made by `scripts/make_rules_page.py`."""
    assert (ROOT / "docs" / "rules.md").read_text() == page()


def test_every_section_of_the_handbook_that_is_cited_is_there():
    sections = set(re.findall(r"^## (\d+)\. ", (ROOT / "docs" / "handbook.md").read_text(), re.MULTILINE))
    cited = set()
    for path in (ROOT / "tidy_trunk").rglob("*.py"):
        for found in re.findall(r"(?:HANDBOOK\]|[Hh]andbook),?\s+§+\s*([\d, and]+)", path.read_text()):
            cited |= set(re.findall(r"\d+", found))
    assert len(cited) > 5 and cited <= sections
