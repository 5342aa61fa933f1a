"""One map from error to response; every error is one sentence with its place."""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse

from tabrel.core.errors import MissingInputsError, ReadingTextError, StudyError, TabrelError
from tabrel.document.results import WireModel
from tabrel.store.errors import ConflictError, NothingToUndoError, NotStoredError


class ProblemOut(WireModel):
    """An error: one sentence, the place where there is one, and what is missing where that is the matter."""

    message: str
    where: str
    missing: list[str]


STATUS: dict[type[TabrelError], int] = {
    NotStoredError: 404,
    MissingInputsError: 409,
    ConflictError: 409,
    NothingToUndoError: 409,
    StudyError: 422,
    ReadingTextError: 422,
    TabrelError: 422,
}
PROBLEM_RESPONSES: dict[int | str, dict[str, Any]] = {
    status: {"model": ProblemOut, "description": text}
    for status, text in (
        (404, "There is no such thing"),
        (409, "Inputs are missing, or it changed meanwhile"),
        (422, "Refused, with the correction"),
    )
}


def problem_response(status: int, message: str, where: str = "", missing: tuple[str, ...] = ()) -> JSONResponse:
    """Return an error as every error is answered."""
    problem = ProblemOut(message=message, where=where, missing=list(missing))
    return JSONResponse(problem.model_dump(), status_code=status)


def add_error_handlers(app: FastAPI) -> None:
    """Make the application answer errors as `ProblemOut`."""

    @app.exception_handler(TabrelError)
    def tabrel_error(_: Request, error: Exception) -> JSONResponse:
        status = next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)
        if isinstance(error, StudyError):
            return problem_response(status, error.message, error.path)
        if isinstance(error, MissingInputsError):
            return problem_response(status, str(error), missing=error.keys)
        return problem_response(status, str(error))

    @app.exception_handler(ArithmeticError)
    def arithmetic_error(_: Request, __: Exception) -> JSONResponse:
        return problem_response(422, "the numbers are too large or too small to compute with: check the readings")

    @app.exception_handler(RequestValidationError)
    def invalid_request(_: Request, error: Exception) -> JSONResponse:
        # pydantic's `input` stays out: a NaN in it could not be written as JSON
        first = error.errors()[0] if isinstance(error, RequestValidationError) else {}
        where = ".".join(str(step) for step in first.get("loc", ()) if step != "body")
        return problem_response(422, f"{where or 'the request'} is not acceptable: {first.get('msg', 'check it')}", where)
