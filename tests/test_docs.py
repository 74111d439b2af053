"""What the documents promise is there, and what is there is documented."""

import ast
import re
from itertools import pairwise
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
    """(module, name, docstring) of every public constant of the core in which a number stands: names and tables of ours need none."""
    for path in (ROOT / "tidy_trunk" / "core").rglob("*.py"):
        body = ast.parse(path.read_text()).body
        for node, after in pairwise((*body, ast.Pass())):
            if not (isinstance(node, ast.AnnAssign) and isinstance(node.target, ast.Name) and node.value):
                continue
            name = node.target.id
            if name.startswith("_") or not name.isupper() or "Final" not in ast.unparse(node.annotation):
                continue
            held = [item.value for item in ast.walk(node.value) if isinstance(item, ast.Constant)]
            if not any(isinstance(value, int | float) and not isinstance(value, bool) for value in held):
                continue
            text = after.value.value if isinstance(after, ast.Expr) and isinstance(after.value, ast.Constant) else ""
            yield path.relative_to(ROOT), name, str(text)


def test_every_constant_names_its_source():
    found = list(constants())
    bare = [f"{path}: {name}" for path, name, text in found if not TAG.search(text) and "ASSUMED_" not in text]
    assert len(found) > 200 and not bare


def test_every_tag_is_listed():
    for path in (ROOT / "tidy_trunk").rglob("*.py"):
        unknown = set(TAG.findall(path.read_text())) - TAGS - {"UUID"}  # a type in brackets
        assert not unknown, f"{path}: {unknown}"
    rules = [*Path(checks.__file__ or "").parent.glob("rules/*.py")]
    assert len(rules) > 10
    for path in rules:
        assert set(re.findall(r'source="([^"]+)"', path.read_text())) <= TAGS & set(SOURCE_WORDS)


def test_every_rule_says_what_it_is_and_by_what_source():
    untold = [name for name, function in RULES.items() if not TAG.search(function.__doc__ or "")]
    assert not untold


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


def test_what_cites_the_handbook_names_a_section_that_is_there():
    """With an anchor of its own, which is what a reader is led to."""
    pages = "".join(page.read_text() for page in (ROOT / "docs" / "handbook").glob("*.md"))
    sections = set(re.findall(r"^#+ (\d+(?:\.\d+)?)\.? ", pages, re.MULTILINE))
    assert {found.replace("-", ".") for found in re.findall(r'<a id="s([\d-]+)">', pages)} == sections
    cited = set()
    for path in (ROOT / "tidy_trunk").rglob("*.py"):
        for after in re.findall(r"\[HANDBOOK\](.{0,40})", path.read_text()):
            named = re.match(r",? §+ ?([\d, and.]*\d)", after)
            assert named, f"{path}: [HANDBOOK]{after}"
            cited |= set(re.findall(r"\d+(?:\.\d+)?", named[1]))
    assert len(cited) > 15 and cited <= sections


def test_every_composable_has_a_test():
    """As CONTRIBUTING says: one that calls it by its name, as every test of the front end does."""
    source = ROOT / "web" / "src"
    tests = "".join(path.read_text() for path in source.rglob("*.test.ts"))
    composables = {path.stem for path in source.rglob("use*.ts") if not path.name.endswith(".test.ts")}
    assert len(composables) > 40 and not [name for name in composables if not re.search(rf"\b{name}\b", tests)]
