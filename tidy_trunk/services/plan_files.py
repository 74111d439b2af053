"""Plans from files. Apart from the other files, as reading a plan takes half a second to import."""

from pathlib import Path

from tidy_trunk.core.plan import Plan
from tidy_trunk.document import LARGEST_PLAN_BYTES, read_plan
from tidy_trunk.errors import FormatError
from tidy_trunk.services.files import at_file


def load_plan(path: Path) -> Plan:
    """A plan file.

    Raises:
        FormatError: It cannot be read, or is no plan; the message begins with the file's name.
        PlanError, InputError: It contradicts itself.
    """
    with at_file(path):
        if path.stat().st_size > LARGEST_PLAN_BYTES:
            raise FormatError(
                f"it is {path.stat().st_size / 1e6:.0f} MB, and a plan has at most {LARGEST_PLAN_BYTES / 1e6:.0f} MB"
            )
        return read_plan(path.read_bytes())
