"""Put the application together."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from functools import partial
from importlib.resources import files
from pathlib import Path
from typing import Any

from fastapi import Depends, FastAPI, Request, Response
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse, JSONResponse
from fastapi.routing import APIRoute
from starlette.exceptions import HTTPException
from starlette.routing import Match

from tabrel import __version__
from tabrel.api.body_limit import BodyLimit
from tabrel.api.catalogue import routes as catalogue_routes
from tabrel.api.change import undo
from tabrel.api.change.bench import ETAG
from tabrel.api.circuit import routes as circuit_routes
from tabrel.api.comparison import judged, parts, percentiles, preferences, sheet, sums, uses
from tabrel.api.comparison import routes as comparison_routes
from tabrel.api.comparison.numbers_cache import NumbersCache
from tabrel.api.entry import claims, copies, counts, date_codes, details, holes, offers, reading_tables, readings
from tabrel.api.entry import samples as entry_samples
from tabrel.api.errors import NOT_THERE, PROBLEM_JSON, PROBLEM_RESPONSES, add_error_handlers, problem_response
from tabrel.api.figures import efficiency
from tabrel.api.figures import routes as figures_routes
from tabrel.api.maps import routes as maps_routes
from tabrel.api.maps import scenarios, slices
from tabrel.api.report import routes as report_routes
from tabrel.api.results import routes as results_routes
from tabrel.api.same_origin import SECURITY_HEADERS, SameOrigin
from tabrel.api.sample import routes as sample_routes
from tabrel.api.sample.sent_sheets import SentSheets
from tabrel.api.stale import DESCRIBED as STALE_HEADERS
from tabrel.api.starts import routes as starts_routes
from tabrel.api.study import studies
from tabrel.api.turns import Changes, new_looks, new_turns, take_lane
from tabrel.api.upkeep import routes as upkeep_routes
from tabrel.api.upkeep.daily import copies_each_day
from tabrel.api.which_database import WhichDatabase
from tabrel.api.workers import Workers
from tabrel.core.judge.knowledge_cache import KnowledgeCache
from tabrel.report.preview import Previews
from tabrel.store.service import Service

ROUTED = (
    studies,
    sample_routes,
    entry_samples,
    readings,
    reading_tables,
    holes,
    details,
    claims,
    counts,
    offers,
    copies,
    date_codes,
    undo,
    results_routes,
    figures_routes,
    efficiency,
    catalogue_routes,
    maps_routes,
    circuit_routes,
    scenarios,
    slices,
    starts_routes,
    comparison_routes,
    parts,
    uses,
    judged,
    sheet,
    sums,
    percentiles,
    preferences,
    report_routes,
    upkeep_routes,
)
"""Modules that bring a router, in the order of the interface description."""

METHODS = ["GET", "HEAD", "OPTIONS", "POST", "PUT", "PATCH", "DELETE"]

KEPT_FOR_GOOD = {"Cache-Control": "public, max-age=31536000, immutable"}
"""Of a file whose name tells its content."""

STATIC = Path(str(files("tabrel"))) / "static"


def create_app(database: Path, *, static: Path = STATIC, stays: bool = False) -> FastAPI:
    """Return the application on a database file, which is created or brought up to date.

    Parameters
    ----------
    database : Path
        SQLite file.
    static : Path
        Built front end; where there is none, only the API answers.
    stays : bool
        Whether it runs for long: a dated copy is kept on each day of use, and processes wait for what is to be computed.

    Raises
    ------
    MigrationError
        If the file is no database of this program, or a newer one.
    DatabaseFaultError
        If it can be neither written nor read.
    """

    @asynccontextmanager
    async def served(app: FastAPI) -> AsyncIterator[None]:
        service, workers = app.state.service, app.state.workers
        with service.held_open(), workers:
            if not stays:
                yield
                return
            workers.warm()
            async with copies_each_day(service, workers):
                yield

    app = FastAPI(
        title="Tabrel",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        generate_unique_id_function=_operation_name,
        lifespan=served,
    )
    serve_database(app, database)
    app.add_middleware(BodyLimit)
    app.add_middleware(WhichDatabase, service_of=lambda: app.state.service)
    app.add_middleware(SameOrigin)  # the outermost
    add_error_handlers(app, SECURITY_HEADERS)
    for module in ROUTED:
        app.include_router(module.router, dependencies=[Depends(take_lane)])
    _refuse_what_is_not_there(app)
    app.openapi = partial(_describe, app)  # type: ignore[method-assign]
    if (static / "index.html").is_file():
        _serve_front_end(app, static)
    return app


def serve_database(app: FastAPI, database: Path) -> None:
    """Put an application on a database file; it keeps nothing of the one it served before.

    Raises
    ------
    MigrationError, DatabaseFaultError
        As `create_app`.
    """
    app.state.service = Service(database)
    app.state.workers = Workers()
    app.state.turns = new_turns()
    app.state.looks = new_looks()
    app.state.changes = Changes()
    app.state.sheets = SentSheets()
    app.state.known = KnowledgeCache()
    app.state.numbers = NumbersCache()
    app.state.previews = Previews(app.state.known)


def _operation_name(route: APIRoute) -> str:
    return route.name


def _describe(app: FastAPI) -> dict[str, Any]:
    """Return the OpenAPI document: every error described once."""
    if app.openapi_schema is None:
        described = get_openapi(title=app.title, version=app.version, routes=app.routes)
        content = {PROBLEM_JSON: {"schema": {"$ref": "#/components/schemas/ProblemOut"}}}
        described["components"]["responses"] = {
            "Problem": {"description": PROBLEM_RESPONSES["default"]["description"], "content": content}
        }
        for operation in (item for path in described["paths"].values() for item in path.values()):
            operation.pop("summary")  # the name again
            operation["parameters"] = [
                _named(described, "parameters", part["name"], part) for part in operation.get("parameters", [])
            ]
            for answer in operation["responses"].values():
                schema = answer.get("content", {}).get("application/json", {}).get("schema", {})
                is_change = schema.get("$ref", "").endswith(("/ChangedOut", "/UndoneOut"))
                headers = {**STALE_HEADERS, **ETAG} if is_change else answer.get("headers", {})
                if headers:
                    answer["headers"] = {name: _named(described, "headers", name, header) for name, header in headers.items()}
            operation["responses"]["default"] = {"$ref": "#/components/responses/Problem"}
        for schema in described["components"]["schemas"].values():
            for field in schema.get("properties", {}).values():
                field.pop("title", None)  # the name again
        app.openapi_schema = described
    return app.openapi_schema


def _named(described: dict[str, Any], kind: str, name: str, item: dict[str, Any]) -> dict[str, Any]:
    """Return a reference to a parameter or header that stands once under its name; itself where the name means something else."""
    known = described["components"].setdefault(kind, {}).setdefault(name, item)
    return {"$ref": f"#/components/{kind}/{name}"} if known == item else item


def _refuse_what_is_not_there(app: FastAPI) -> None:
    """Answer every other address of the API with a plain 404, and every other method of one that is there with 405."""
    routes = [route for module in ROUTED for route in module.router.routes if isinstance(route, APIRoute)]

    def nothing_here(request: Request) -> JSONResponse:
        scope = {**request.scope, "path_params": {}}
        taken = [route.methods for route in routes if route.matches(scope)[0] is Match.PARTIAL]
        if taken:
            raise HTTPException(405, headers={"Allow": ", ".join(sorted(set().union(*(item or () for item in taken))))})
        return problem_response(404, NOT_THERE, request.url.path)

    for path in ("/api", "/api/{path:path}"):
        app.add_api_route(path, nothing_here, methods=METHODS, include_in_schema=False)


def _serve_front_end(app: FastAPI, static: Path) -> None:
    root = static.resolve()

    @app.get("/{path:path}", include_in_schema=False)
    def front_end(path: str, _: Request) -> Response:
        try:
            asked = (root / path).resolve()
            is_file = path != "" and asked.is_relative_to(root) and asked.is_file()
        except (OSError, ValueError):  # a name too long for the file system, or with a letter that no name has
            return problem_response(404, NOT_THERE, f"/{path}")
        if is_file:
            return FileResponse(asked, headers=KEPT_FOR_GOOD if path.startswith("assets/") else None)
        if path.startswith("assets/"):
            return problem_response(404, NOT_THERE, f"/{path}")
        return FileResponse(root / "index.html", headers={"Cache-Control": "no-cache"})
