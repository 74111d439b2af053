"""Errors as problem documents [RFC9457]: a table of error class to status, and one body."""

from collections.abc import Mapping
from errno import ENOSPC
from typing import Any, Final

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from tidy_trunk.errors import (
    BusyError,
    FormatError,
    InputError,
    NoRoomError,
    NotAllowedError,
    NotFoundError,
    NothingToUndoError,
    PlanError,
    RevisionConflictError,
    StoreUnavailableError,
    TidyTrunkError,
    TooManyTriesError,
)

MEDIA_TYPE: Final = "application/problem+json"

STATUS: Final[Mapping[type[TidyTrunkError], int]] = {
    NotFoundError: 404,
    RevisionConflictError: 409,
    NothingToUndoError: 409,
    StoreUnavailableError: 503,
    NoRoomError: 507,
    BusyError: 503,
    NotAllowedError: 403,
    TooManyTriesError: 429,
    FormatError: 422,
    InputError: 422,
    PlanError: 422,
}


class Problem(BaseModel):
    """What went wrong: `code` is stable, `detail` is for people, `where` names the field where there is one.

    Of a conflict: `newest_revision`, what was to be done (`yours`), what has changed since (`theirs`), and who did the last
    of it (`by`).
    """

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    code: str
    where: str = ""
    newest_revision: int | None = None
    yours: str | None = None
    theirs: list[str] | None = None
    by: str | None = None
    request: str | None = None


def problem_response(status: int, code: str, detail: str, **more: Any) -> JSONResponse:
    titles = {
        404: "Not found",
        408: "Too slow",
        409: "Out of date",
        413: "Too large",
        429: "Too often",
        421: "Wrong host",
        403: "Refused",
        500: "Mistake",
        503: "Unavailable",
        507: "No room",
    }
    body = Problem(title=titles.get(status, "Cannot be done"), status=status, detail=detail, code=code, **more)
    return JSONResponse(body.model_dump(exclude_none=True), status_code=status, media_type=MEDIA_TYPE)


def status_of(error: TidyTrunkError) -> int:
    """What HTTP calls it. [RFC9110]"""
    return next((code for kind, code in STATUS.items() if isinstance(error, kind)), 500)


def install(app: FastAPI) -> None:
    """Every error of the application leaves as a problem document."""

    @app.exception_handler(TidyTrunkError)
    def domain_error(request: Request, error: TidyTrunkError) -> JSONResponse:
        status = status_of(error)
        conflict = error.details if isinstance(error, RevisionConflictError) else {}
        return problem_response(status, error.code, error.message, **conflict)

    @app.exception_handler(OSError)
    def system_error(request: Request, error: OSError) -> JSONResponse:
        if error.errno != ENOSPC:
            raise error
        return domain_error(request, NoRoomError())

    @app.exception_handler(TimeoutError)
    def too_slow(request: Request, error: TimeoutError) -> JSONResponse:
        return problem_response(408, "too-slow", "nothing more of the request arrived: send it again")

    @app.exception_handler(RequestValidationError)
    def bad_request(request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"] if part != "body")
        return problem_response(422, "input", f"{where or 'the request'}: {first['msg'].lower()}", where=where)

    @app.exception_handler(HTTPException)
    def http_error(request: Request, error: HTTPException) -> JSONResponse:
        if error.status_code == 400:  # of a body that is not even text, or that nests too deep
            return problem_response(422, "input", "the request cannot be read: send JSON in UTF-8")
        return problem_response(error.status_code, "http", str(error.detail))
