"""OpenAPI models: each model in its input form and in its output form, where every field is present."""

from collections.abc import Iterator
from typing import Any, Literal

from flask import Flask
from pydantic import BaseModel
from pydantic.json_schema import GenerateJsonSchema, models_json_schema
from pydantic_core.core_schema import ComputedField, DataclassField, ModelField, TypedDictField

from reedmace.api.problems import Problem

Mode = Literal["validation", "serialization"]
_REFERENCE = "#/components/schemas/{model}"


class _Whole(GenerateJsonSchema):
    """JSON schema of output models: a field with a default is always present."""

    def field_is_required(self, field: ModelField | DataclassField | TypedDictField, total: bool) -> bool:
        return self.mode == "serialization" or super().field_is_required(field, total)

    def computed_field_is_required(self, field: ComputedField, total: bool) -> bool:
        return True


def describe(app: Flask, spec: dict[str, Any]) -> dict[str, Any]:
    """The OpenAPI description with every model as pydantic writes it.

    A model that differs in the two forms is called `NameIn` where it is received.

    app: whose views name the models; spec: as APIFlask makes it, changed in place.
    """
    models = sorted(set(_models(app)), key=lambda one: (one[0].__name__, one[1]))
    references, definitions = models_json_schema(models, ref_template=_REFERENCE, schema_generator=_Whole)
    names = {
        name: name.removesuffix("-Output") if name.endswith("-Output") else name.replace("-Input", "In")
        for name in definitions["$defs"]
    }
    ways = {(model.__name__, mode): _renamed(reference, names) for (model, mode), reference in references.items()}
    spec["components"]["schemas"] = dict(
        sorted((names[name], _renamed(schema, names)) for name, schema in definitions["$defs"].items())
    )
    for operation in (o for path in spec["paths"].values() for o in path.values() if isinstance(o, dict)):
        _point(operation.get("requestBody", {}), "validation", ways)
        _point(operation.get("responses", {}), "serialization", ways)
        for status, answer in operation.get("responses", {}).items():
            if int(status) >= 400:
                answer["content"] = {"application/problem+json": {"schema": ways["Problem", "serialization"]}}
    return spec


def _models(app: Flask) -> Iterator[tuple[type[BaseModel], Mode]]:
    yield Problem, "serialization"
    for view in app.view_functions.values():
        asked: dict[str, Any] = getattr(view, "_spec", {})
        found = [(asked.get("body"), "validation"), (asked.get("response", {}).get("schema"), "serialization")]
        for answer in asked.get("responses", {}).values() if isinstance(asked.get("responses"), dict) else ():
            found.append((answer.get("schema") if isinstance(answer, dict) else None, "serialization"))
        for model, mode in found:
            if isinstance(model, type) and issubclass(model, BaseModel):
                yield model, mode  # type: ignore[misc]


def _point(part: dict[str, Any], mode: Mode, ways: dict[tuple[str, Mode], dict[str, Any]]) -> None:
    for content in [part, *part.values()]:
        for kind in content.get("content", {}).values() if isinstance(content, dict) else ():
            name = kind.get("schema", {}).get("$ref", "").rsplit("/", 1)[-1]
            if (name, mode) in ways:
                kind["schema"] = ways[name, mode]


def _renamed(node: Any, names: dict[str, str]) -> Any:
    if isinstance(node, dict):
        return {
            key: _reference(value, names)
            if key == "$ref"
            else {k: _reference(v, names) for k, v in value.items()}
            if key == "mapping"
            else _renamed(value, names)
            for key, value in node.items()
        }
    return [_renamed(item, names) for item in node] if isinstance(node, list) else node


def _reference(reference: str, names: dict[str, str]) -> str:
    head, _, name = reference.rpartition("/")
    return f"{head}/{names.get(name, name)}"
