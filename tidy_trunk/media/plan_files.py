"""Plans from files. Apart from the other files, as reading a plan takes half a second to import."""

from pathlib import Path

from tidy_trunk.core.plan import Plan
from tidy_trunk.document import LARGEST_PLAN_BYTES, read_plan
from tidy_trunk.media.files import at_file


def load_plan(path: Path) -> Plan:
    """A plan file.

    Raises:
        FormatError: It cannot be read, or is no plan; the message begins with the file's name.
        PlanError, InputError: It contradicts itself.
    """
    with at_file(path), path.open("rb") as file:
        return read_plan(file.read(LARGEST_PLAN_BYTES + 1))  # some files never end
