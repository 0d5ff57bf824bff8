"""Every named computation at its own address, with its own schema."""

from typing import Any

from apiflask import APIBlueprint
from pydantic import BaseModel, Field

from reedmace.api.problems import ProblemError
from reedmace.core.computations import COMPUTATIONS
from reedmace.core.contract import Answer, Computation, Question
from reedmace.core.cycle.judgement.methods import HELPER_TABLE, METHOD_TABLE, HelperRow, MethodRow
from reedmace.core.filter import CATALOGUE, Filter
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import KINDS
from reedmace.core.glossary import GLOSSARY, Word
from reedmace.core.quantity import as_nitrogen
from reedmace.core.sources import SOURCES
from reedmace.core.stock import SPECIES, Species
from reedmace.logbook.stages.form_defaults import FormDefaults

blueprint = APIBlueprint("compute", __name__, url_prefix="/api/compute", tag="Compute")


class Named(BaseModel):
    """One computation."""

    name: str
    answers: str


class SourceRow(BaseModel):
    """One source."""

    key: str
    provenance: str
    title: str


class NitrogenShares(BaseModel):
    """mg N in one mg of the ion, by test."""

    ammonia: float = Field(ge=0, le=1)
    nitrite: float = Field(ge=0, le=1)
    nitrate: float = Field(ge=0, le=1)


class KindTitle(BaseModel):
    """A filter kind and its title."""

    kind: KindName
    title: str


class Tables(BaseModel):
    """Reference tables for the screens."""

    species: list[Species]
    catalogue: list[Filter]
    kinds: list[KindTitle]
    sources: list[SourceRow]
    computations: list[Named]
    nitrogen_share: NitrogenShares
    methods: list[MethodRow]
    helpers: list[HelperRow]
    form_defaults: FormDefaults
    words: list[Word]


@blueprint.get("")
@blueprint.output(Tables)
def read_tables() -> Tables:
    """Species, catalogue, sources and the names of the computations."""
    return Tables(
        species=list(SPECIES.values()),
        catalogue=list(CATALOGUE),
        kinds=[KindTitle(kind=k.name, title=k.title) for k in KINDS],
        sources=[SourceRow(key=s.key, provenance=s.provenance, title=s.title) for s in SOURCES.values()],
        methods=METHOD_TABLE,
        helpers=HELPER_TABLE,
        form_defaults=FormDefaults(),
        words=GLOSSARY,
        computations=[Named(name=c.name, answers=c.answers) for c in COMPUTATIONS.values()],
        nitrogen_share=NitrogenShares(
            ammonia=as_nitrogen(1, "ammonia", "ion"),
            nitrite=as_nitrogen(1, "nitrite", "ion"),
            nitrate=as_nitrogen(1, "nitrate", "ion"),
        ),
    )


class AnySchema(BaseModel):
    """A computation's schemas, as JSON Schema."""

    name: str
    answers: str
    input: dict[str, Any]
    output: dict[str, Any]


@blueprint.get("/<name>/schema")
@blueprint.output(AnySchema)
@blueprint.doc(responses={404: "No such computation"})
def read_schema(name: str) -> AnySchema:
    """The input and output of one computation as JSON Schema, with units and ranges."""
    if name not in COMPUTATIONS:
        raise ProblemError(404, "No such computation", f"GET /api/compute lists them: {', '.join(COMPUTATIONS)}.")
    return AnySchema(**COMPUTATIONS[name].schema())


def _add(computation: Computation[Any, Any]) -> None:
    def answer(json_data: Question) -> Answer:
        result: Answer = computation.function(json_data)
        return result

    answer.__name__ = "compute_" + computation.name.replace("-", "_")
    answer.__doc__ = f"{computation.answers}."
    view = blueprint.doc(responses={422: "Not usable"})(answer)
    view = blueprint.output(computation.answer)(view)
    view = blueprint.input(computation.question)(view)
    blueprint.post(f"/{computation.name}")(view)


for _computation in COMPUTATIONS.values():
    _add(_computation)
