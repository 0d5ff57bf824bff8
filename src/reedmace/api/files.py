"""Helpers for CSV request and response bodies, and the catalogue as CSV."""

from apiflask import APIBlueprint
from flask import Response, request
from pydantic import BaseModel

from reedmace.api.openapi_responses import CSV
from reedmace.api.problems import MOST_ISSUES, ProblemError
from reedmace.core.filter import CATALOGUE, Filter
from reedmace.formats import RowError, read_catalogue, write_catalogue

blueprint = APIBlueprint("files", __name__, url_prefix="/api/compute", tag="Files")


def csv_text() -> str:
    """The request's body as text. Raises a 422 problem when it is not UTF-8."""
    try:
        return request.get_data().decode("utf-8")
    except UnicodeDecodeError as error:
        raise ProblemError(422, "Not a text file", "Save the file as UTF-8 CSV and send it again.") from error


def refuse_rows(errors: list[RowError]) -> None:
    """Raise a 422 problem naming each faulty row, if any. errors: from the reader."""
    if not errors:
        return
    faults = [e.issue() for e in errors[:MOST_ISSUES]]
    many = "s" if len(errors) > 1 else ""
    raise ProblemError(422, "Nothing was imported", f"{len(errors)} fault{many} found; nothing was written.", faults)


def csv_response(text: str, name: str) -> Response:
    """A CSV download. text: its content; name: of the file."""
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, mimetype="text/csv", headers=headers)


class FilterList(BaseModel):
    """Filters read from a file; nothing is stored."""

    filters: list[Filter]


@blueprint.get("/catalogue.csv")
@blueprint.doc(responses=CSV)
def export_catalogue() -> Response:
    """The catalogue as CSV."""
    return csv_response(write_catalogue(CATALOGUE), "catalogue.csv")


@blueprint.post("/catalogue.csv")
@blueprint.output(FilterList)
@blueprint.doc(responses={422: "Not usable; each faulty row is named"})
def import_catalogue() -> FilterList:
    """Filters of a CSV: all rows or none."""
    found, errors = read_catalogue(csv_text())
    refuse_rows(errors)
    return FilterList(filters=found)
