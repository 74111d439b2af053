"""Words of a dialect that stays away: nobody on a set says them, and each has a better one in docs/glossary.md or on the page."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]

SCREENS = [*sorted((ROOT / "web" / "src").rglob("*.vue")), ROOT / "web" / "src" / "features" / "shell" / "stations.ts"]
MESSAGES = sorted((ROOT / "tidy_trunk").rglob("*.py"))
COMMENTS = re.compile(
    r"/\*.*?\*/|<!--.*?-->|^\s*//.*$|\s//\s.*$|<style.*?</style>|\"\"\".*?\"\"\"|#.*$", re.DOTALL | re.MULTILINE
)

ON_SCREENS = (
    "nothing to mend", "what to mend", "pad bench", "<h2>bench", "rules</template>", "dd>hears", "who must be heard", "what is there to work with", "what are we shooting", "heard by",
    "what comes of it", "what makes the noise", "on a meter", "by ear", "where else it is kept",
    "what is not sure", "ways to match", "by way of", "let them be heard", "believe the meter", "keep how it reads",
    "who gives time", "from nobody", "gives it to the others", "may part by", "alone it may", "by what they meet",
    "a clap alone", "pictures late", "late pictures", "lay them over", "found in nothing", "say a run", "what can be said",
    "a lead", "no lead", "the lead", "leads of", "this run", "run {{", "length for good", "where it lies", "tied up", "set all of it", "since then", "bring it back", "take it for", ">take {{", ">take out", "take back", ">make it", "what mends", ": mend", "got a name that", "all that is to be done", ">leave it", ">turn it", "put it back", "drop it<", "let them go", ">once more",
)  # fmt: skip
IN_MESSAGES = (
    "nobody would",
    "nobody will hear",
    "from nobody",
    "is drained",
    "radio guard",
    "may part by more",
    "cannot be: give",
    "by way of another",
    "holds that plug",
    'is turned down"',
    'cannot be heard"',
    "not accepted",
    "run {run",
    "run {joint",
    "run {stage",
    "a lead ",
    "the lead ",
    "balanced lead",
    "of your own lead",
)


@pytest.mark.parametrize(
    ("files", "words"), [(SCREENS, ON_SCREENS), (MESSAGES, IN_MESSAGES)], ids=["screens", "messages"]
)
def test_nobody_has_to_learn_a_dialect(files, words):
    assert len(files) > 50
    for path in files:
        text = re.sub(r"\s+", " ", COMMENTS.sub(" ", path.read_text()).lower())
        found = [word for word in words if word in text]
        assert not found, f"{path.name}: {found}"
