"""Every named computation at its own address, with its own schema."""

from typing import Any

from apiflask import APIBlueprint
from pydantic import BaseModel, Field

from reedmace.api.problems import ProblemError
from reedmace.core.computations import COMPUTATIONS
from reedmace.core.contract import Answer, Computation, Lph, Question
from reedmace.core.cycle.judgement.method_table import HELPER_TABLE, METHOD_TABLE, HelperRow, MethodRow
from reedmace.core.filter import Filter
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.typical import typical_box
from reedmace.core.guide import GLOSSARY, HOW_TO, QUESTIONS, AskedQuestion, HowTo, Word
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


class KindPage(BaseModel):
    """All that is told of a kind before one is chosen, and a usual box of it."""

    kind: KindName
    title: str
    about: KindAbout
    usual: Filter
    smallest_lph: Lph
    largest_lph: Lph
    serviced_days: float = Field(ge=0, le=4000)


class KindPages(BaseModel):
    """Every kind, in the usual order."""

    kinds: list[KindPage]


class Tables(BaseModel):
    """Reference tables for the screens."""

    species: list[Species]
    sketched: Filter = Field(description="A filter under a tank, for the drawing of the first page")
    kinds: list[KindTitle]
    sources: list[SourceRow]
    computations: list[Named]
    nitrogen_share: NitrogenShares
    methods: list[MethodRow]
    helpers: list[HelperRow]
    form_defaults: FormDefaults
    words: list[Word]
    how_to: list[HowTo]
    questions: list[AskedQuestion]


@blueprint.get("")
@blueprint.output(Tables)
def read_tables() -> Tables:
    """Species, kinds, sources and the names of the computations."""
    return Tables(
        species=list(SPECIES.values()),
        sketched=typical_box(next(k for k in KINDS if k.hosed and k.closed), 800),
        kinds=[KindTitle(kind=k.name, title=k.title) for k in KINDS],
        sources=[SourceRow(key=s.key, provenance=s.provenance, title=s.title) for s in SOURCES.values()],
        methods=METHOD_TABLE,
        helpers=HELPER_TABLE,
        form_defaults=FormDefaults(),
        words=GLOSSARY,
        how_to=HOW_TO,
        questions=QUESTIONS,
        computations=[Named(name=c.name, answers=c.answers) for c in COMPUTATIONS.values()],
        nitrogen_share=NitrogenShares(
            ammonia=as_nitrogen(1, "ammonia", "ion"),
            nitrite=as_nitrogen(1, "nitrite", "ion"),
            nitrate=as_nitrogen(1, "nitrate", "ion"),
        ),
    )


@blueprint.get("/kinds")
@blueprint.output(KindPages)
def read_kinds() -> KindPages:
    """A page a kind: how it works, for whom, what it costs and what must be bought besides."""
    return KindPages(
        kinds=[
            KindPage(
                kind=kind.name,
                title=kind.title,
                about=kind.about,
                usual=typical_box(kind, (boxes.smallest_lph * boxes.largest_lph) ** 0.5),
                smallest_lph=boxes.smallest_lph,
                largest_lph=boxes.largest_lph,
                serviced_days=kind.service_days,
            )
            for kind in KINDS
            if (boxes := kind.typical) is not None
        ]
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
