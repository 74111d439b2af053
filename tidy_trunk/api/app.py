"""The application: routers, error handler, guard, and the built front end."""

from pathlib import Path

from fastapi import Depends, FastAPI
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import FileResponse, Response
from starlette.staticfiles import StaticFiles

from tidy_trunk import __version__
from tidy_trunk.api import problems
from tidy_trunk.api.guard import Guard
from tidy_trunk.api.requests import Requests
from tidy_trunk.api.rights import check_rights
from tidy_trunk.api.routers import (
    catalogue,
    clock,
    compare,
    copies,
    day,
    day_files,
    drills,
    ear,
    equipment,
    fault_search,
    front_door,
    gear_tests,
    guests,
    jobs,
    leads,
    levels,
    line_up,
    log,
    news,
    pads,
    papers,
    recordings,
    simulation,
    sync,
    tools,
    trunk,
    walks,
)
from tidy_trunk.services.container import Services
from tidy_trunk.services.guests import LocalNetwork

FOR_EVER = "public, max-age=31536000, immutable"
"""A year [RFC9110]: the name of a built file changes with what is in it."""

COMPRESSION = 5
"""ASSUMED_ of nine levels: beyond it a job's 60 kB get hardly smaller, and take longer than they save."""


class Frontend(StaticFiles):
    """The built files, each under a name that holds its hash."""

    def file_response(self, *args, **kwargs):  # type: ignore[no-untyped-def]
        response = super().file_response(*args, **kwargs)
        response.headers["Cache-Control"] = FOR_EVER
        return response


def create_app(services: Services, web: Path | None, network: LocalNetwork | None = None) -> FastAPI:
    """The whole application.

    Args:
        services: On a store.
        web: Folder of the built front end; None serves the API alone.
        network: From which guests are let in; nobody is unless it is given.
    """
    app = FastAPI(
        title="Tidy Trunk",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        dependencies=[Depends(check_rights)],
    )
    app.state.services, app.state.network = services, network
    app.state.underway = {}
    problems.install(app)
    for router in (
        jobs.router,
        news.router,
        levels.router,
        line_up.router,
        recordings.router,
        compare.router,
        clock.router,
        sync.router,
        simulation.router,
        walks.router,
        day.router,
        day_files.router,
        log.router,
        equipment.router,
        fault_search.router,
        tools.router,
        front_door.router,
        gear_tests.router,
        pads.router,
        papers.router,
        drills.router,
        ear.router,
        trunk.router,
        trunk.of_jobs,
        leads.router,
        catalogue.router,
        guests.router,
        copies.router,
    ):
        app.include_router(router, prefix="/api")
    if web is not None:
        _serve_front_end(app, web)
    app.add_middleware(Guard)
    app.add_middleware(GZipMiddleware, compresslevel=COMPRESSION)
    app.add_middleware(Requests, underway=app.state.underway)
    return app


def _serve_front_end(app: FastAPI, web: Path) -> None:
    index = web / "index.html"
    app.mount("/assets", Frontend(directory=web / "assets"), name="assets")

    @app.get("/enter", include_in_schema=False)
    def entrance() -> Response:
        return FileResponse(web / "enter.html", headers={"Cache-Control": "no-store"})

    @app.get("/enter.js", include_in_schema=False)
    def entrance_script() -> Response:
        return FileResponse(web / "enter.js", headers={"Cache-Control": "no-store"}, media_type="text/javascript")

    @app.get("/sw.js", include_in_schema=False)
    def service_worker() -> Response:
        return FileResponse(web / "sw.js", headers={"Cache-Control": "no-cache"}, media_type="text/javascript")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/") or ("." in path and "/" not in path):
            return problems.problem_response(404, "http", f"there is nothing at /{path[:200]}")
        return FileResponse(index, headers={"Cache-Control": "no-cache"})
