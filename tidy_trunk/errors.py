"""Every error that a user can cause or meet, each with a stable code. Imports nothing of ours."""

from collections.abc import Mapping


class TidyTrunkError(Exception):
    """Base: a message that says what is wrong and what to do, a stable code, and details as data."""

    default_code = "error"

    def __init__(self, message: str, *, code: str | None = None, details: Mapping[str, object] | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.code = code or self.default_code
        self.details = dict(details or {})


class InputError(TidyTrunkError, ValueError):
    """A value that the caller gave cannot be used."""

    default_code = "input"


class RangeError(InputError):
    """A number outside what is physically or practically possible."""

    default_code = "range"


class UnitError(InputError):
    """An unknown unit, or two units between which nothing converts."""

    default_code = "unit"


class RateError(InputError):
    """A frame rate that is not one of the known ones."""

    default_code = "rate"


class TimecodeError(InputError):
    """A timecode label that does not exist, or none at all."""

    default_code = "timecode"


class FormatError(TidyTrunkError):
    """Bytes or text that break their specification; details name the place."""

    default_code = "format"


class NewerSchemaError(FormatError):
    """A plan written by a newer version of this program."""

    default_code = "newer-schema"


class PlanError(TidyTrunkError):
    """An edit or a plan that cannot be."""

    default_code = "plan"


class UnknownItemError(PlanError):
    """A device, port, run, source, control or class that the plan does not hold."""

    default_code = "unknown-item"


class PortInUseError(PlanError):
    """A second plug for a port that holds one."""

    default_code = "port-in-use"


class SignalLoopError(PlanError):
    """A signal that comes back to where it started."""

    default_code = "signal-loop"


class StoreError(TidyTrunkError):
    """What is stored, or the store itself."""

    default_code = "store"


class NotFoundError(StoreError):
    """No such job or revision."""

    default_code = "not-found"


class RevisionConflictError(StoreError):
    """A change made on an older state than the newest; details hold the newest number, and both versions in words."""

    default_code = "revision-conflict"


class NothingToUndoError(StoreError):
    """Undo at the first state, or redo at the newest."""

    default_code = "nothing-to-undo"


class StoreUnavailableError(StoreError):
    """The database does not answer."""

    default_code = "store-unavailable"


class NoRoomError(StoreError):
    """The disk is full."""

    default_code = "no-room"

    def __init__(
        self, message: str = "the disk is full, and this was not kept: make room on it, then try again"
    ) -> None:
        super().__init__(message)


class BusyError(TidyTrunkError):
    """Too many ask for that at once: it may be asked again."""

    default_code = "busy"


class NotAllowedError(TidyTrunkError):
    """The key of a guest is not enough for that."""

    default_code = "not-allowed"


class TooManyTriesError(TidyTrunkError):
    """Wrong keys came too often from one place."""

    default_code = "too-many-tries"


class SetupError(TidyTrunkError):
    """The application cannot start here; the message says why and what to do."""

    default_code = "setup"
