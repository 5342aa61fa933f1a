"""One map from error to response: every error is a problem of RFC 9457, with one sentence and its place."""

from __future__ import annotations

import logging
import sqlite3
from collections.abc import Mapping
from http import HTTPStatus
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from tabrel.api.turns import ComputingError
from tabrel.core.errors import MissingInputsError, ReadingTextError, StudyError, TabrelError
from tabrel.core.stopping import StoppedError
from tabrel.document.results import WireModel
from tabrel.store.errors import (
    BusyError,
    ChangedMeanwhileError,
    ConflictError,
    DatabaseFaultError,
    DiskFullError,
    NothingToUndoError,
    NotStoredError,
    OtherDatabaseError,
    RevisionNeededError,
    fault_of,
)

PROBLEM_JSON = "application/problem+json"
"""Media type of every error."""


class ProblemOut(WireModel):
    """An error, by RFC 9457: one sentence, the place where there is one, and what is missing where that is the matter."""

    type: str = "about:blank"
    """about:blank if the status says it all."""
    title: str
    status: int
    detail: str
    where: str
    """Key, or path in the document; empty for the whole."""
    missing: list[str]


STATUS: dict[type[TabrelError], int] = {
    BusyError: 503,
    ComputingError: 503,
    DiskFullError: 507,
    DatabaseFaultError: 503,
    NotStoredError: 404,
    MissingInputsError: 409,
    ChangedMeanwhileError: 412,
    OtherDatabaseError: 412,
    RevisionNeededError: 428,
    ConflictError: 409,
    NothingToUndoError: 409,
    StudyError: 422,
    ReadingTextError: 422,
    TabrelError: 422,
}
REFUSALS: dict[int, str] = {
    400: "not for this machine, or not JSON",
    403: "from another page",
    404: "there is no such thing",
    409: "inputs are missing, or it changed meanwhile",
    412: "another window has changed it meanwhile, or put back a copy of the database",
    413: "larger than what is asked for could be",
    415: "a change that is not sent as JSON",
    422: "refused, with the correction",
    428: "a change that overwrites and does not say what it has seen",
    500: "an error of the program; nothing was changed",
    503: "the database cannot be read or written now, or too much is being computed",
    507: "the disk is full",
}
"""Every status an operation may refuse with."""

PROBLEM_RESPONSES: dict[int | str, dict[str, Any]] = {
    "default": {"model": ProblemOut, "description": "; ".join(f"{status}: {words}" for status, words in REFUSALS.items())}
}
"""Any operation may refuse, and all do it alike."""

RETRY = {"Retry-After": "1"}
"""Pause that a busy server asks for. [s]"""

NOT_THERE = "there is nothing here"
OWN_ERROR = "an error of Tabrel itself: nothing was changed by this; what happened is written where the server was started"


def problem_response(
    status: int, detail: str, where: str = "", missing: tuple[str, ...] = (), headers: Mapping[str, str] | None = None
) -> JSONResponse:
    """Return an error as every error is answered."""
    title = HTTPStatus(status).phrase
    problem = ProblemOut(title=title, status=status, detail=detail, where=where, missing=list(missing))
    return JSONResponse(problem.model_dump(), status_code=status, headers=dict(headers or {}), media_type=PROBLEM_JSON)


def add_error_handlers(app: FastAPI, headers: Mapping[str, str]) -> None:
    """Make the application answer errors as `ProblemOut`.

    Parameters
    ----------
    app : FastAPI
    headers : Mapping
        Of every answer; an answer to an error of the program passes by whatever else would add them.
    """

    @app.exception_handler(TabrelError)
    def tabrel_error(_: Request, error: Exception) -> JSONResponse:
        status = next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)
        if isinstance(error, StudyError):
            return problem_response(status, error.message, error.path)
        if isinstance(error, MissingInputsError):
            return problem_response(status, str(error), missing=error.keys)
        return problem_response(status, str(error), headers=RETRY if status == 503 else None)

    @app.exception_handler(sqlite3.Error)
    def database_fault(request: Request, error: Exception) -> JSONResponse:
        fault = fault_of(error) if isinstance(error, sqlite3.Error) else None
        if fault is None:
            raise error
        logging.getLogger("tabrel").error("%s %s: %s", request.method, request.url.path, error)
        warning = request.app.state.service.opened.warning
        if warning:  # it is served to be read only, and this is why
            return problem_response(503, warning)
        return tabrel_error(request, fault)

    @app.exception_handler(StoppedError)
    def stopped(_: Request, error: Exception) -> JSONResponse:
        return problem_response(503, str(error), headers=RETRY)

    @app.exception_handler(ArithmeticError)
    def arithmetic_error(_: Request, __: Exception) -> JSONResponse:
        return problem_response(422, "the numbers are too large or too small to compute with: check the readings")

    @app.exception_handler(RequestValidationError)
    def invalid_request(request: Request, error: Exception) -> JSONResponse:
        # pydantic's `input` stays out: a NaN in it could not be written as JSON
        first = error.errors()[0] if isinstance(error, RequestValidationError) else {}
        place = first.get("loc", ())
        if place[:1] == ("path",):
            return problem_response(404, NOT_THERE, request.url.path)
        where = ".".join(str(step) for step in place if step != "body")
        says = str(first.get("msg", "check it")).removeprefix("Value error, ")
        return problem_response(422, f"{where or 'the request'} is not acceptable: {says}", where)

    @app.exception_handler(HTTPException)
    def refused(request: Request, error: Exception) -> JSONResponse:
        assert isinstance(error, HTTPException)
        if error.status_code == 405:
            allowed = (error.headers or {}).get("Allow", "GET")
            detail = f"{request.method} is not taken here: this address takes {allowed}"
        elif error.status_code == 404:
            detail = NOT_THERE
        elif error.status_code == 400:
            detail = "the request cannot be read: send JSON in UTF-8"
        else:
            detail = str(error.detail)
        return problem_response(error.status_code, detail, request.url.path, headers=error.headers)

    @app.exception_handler(Exception)
    def own_error(request: Request, error: Exception) -> JSONResponse:
        logging.getLogger("tabrel").error("%s %s: %s", request.method, request.url.path, error)
        return problem_response(500, OWN_ERROR, request.url.path, headers=headers)
