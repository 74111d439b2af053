"""The only place that opens a user's file."""

from pathlib import Path

from tidy_trunk.core.plan import Plan
from tidy_trunk.document import LARGEST_PLAN_BYTES, read_plan
from tidy_trunk.errors import FormatError, InputError, PlanError, TidyTrunkError


def load_plan(path: Path) -> Plan:
    """A plan file.

    Raises:
        FormatError: It cannot be read, or is no plan; the message begins with the file's name.
        PlanError, InputError: It contradicts itself.
    """
    try:
        if path.stat().st_size > LARGEST_PLAN_BYTES:
            raise FormatError(
                f"it is {path.stat().st_size / 1e6:.0f} MB, and a plan has at most {LARGEST_PLAN_BYTES / 1e6:.0f} MB"
            )
        return read_plan(path.read_bytes())
    except OSError as error:
        raise FormatError(f"{path}: cannot be read: {error.strerror}") from error
    except (FormatError, PlanError, InputError) as error:
        raise _at(path, error) from error


def _at(path: Path, error: TidyTrunkError) -> TidyTrunkError:
    return type(error)(f"{path}: {error.message}", code=error.code, details=error.details)
