"""Conversion of a formula to the MathML that SBML requires; covers what the cycle model needs."""

import ast
from xml.etree import ElementTree as ET

MATHML = "http://www.w3.org/1998/Math/MathML"
TIME = "http://www.sbml.org/sbml/symbols/time"
_BINARY = {ast.Add: "plus", ast.Sub: "minus", ast.Mult: "times", ast.Div: "divide", ast.Pow: "power"}
_COMPARE = {ast.Gt: "gt", ast.GtE: "geq", ast.Lt: "lt", ast.LtE: "leq"}


def math_of(formula: str) -> ET.Element:
    """The <math> element of a formula: + - * / **, comparisons, `max(a, b)`, `if_(condition, then, otherwise)`, `time`.

    formula: in Python's spelling. Raises ValueError for anything else.
    """
    root = ET.Element(f"{{{MATHML}}}math")
    root.append(_node(ast.parse(formula, mode="eval").body))
    return root


def _apply(name: str, *children: ET.Element) -> ET.Element:
    found = ET.Element(f"{{{MATHML}}}apply")
    ET.SubElement(found, f"{{{MATHML}}}{name}")
    found.extend(children)
    return found


def _piecewise(then: ET.Element, condition: ET.Element, otherwise: ET.Element) -> ET.Element:
    found = ET.Element(f"{{{MATHML}}}piecewise")
    piece = ET.SubElement(found, f"{{{MATHML}}}piece")
    piece.extend((then, condition))
    ET.SubElement(found, f"{{{MATHML}}}otherwise").append(otherwise)
    return found


def _number(value: float) -> ET.Element:
    found = ET.Element(f"{{{MATHML}}}cn")
    mantissa, _, power = f"{value!r}".partition("e")
    found.text = mantissa
    if power:
        found.set("type", "e-notation")
        ET.SubElement(found, f"{{{MATHML}}}sep").tail = str(int(power))
    return found


def _name(name: str) -> ET.Element:
    if name == "time":
        found = ET.Element(f"{{{MATHML}}}csymbol", encoding="text", definitionURL=TIME)
    else:
        found = ET.Element(f"{{{MATHML}}}ci")
    found.text = name
    return found


def _call(node: ast.Call) -> ET.Element | None:
    name, parts = getattr(node.func, "id", ""), node.args
    if name == "max" and len(parts) == 2:
        return _piecewise(_node(parts[0]), _apply("gt", _node(parts[0]), _node(parts[1])), _node(parts[1]))
    if name == "if_" and len(parts) == 3:
        return _piecewise(_node(parts[1]), _node(parts[0]), _node(parts[2]))
    return None


def _node(node: ast.expr) -> ET.Element:
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float):
        return _number(float(node.value))
    if isinstance(node, ast.Name):
        return _name(node.id)
    if isinstance(node, ast.BinOp) and type(node.op) in _BINARY:
        return _apply(_BINARY[type(node.op)], _node(node.left), _node(node.right))
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.USub):
        return _apply("minus", _node(node.operand))
    if isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in _COMPARE:
        return _apply(_COMPARE[type(node.ops[0])], _node(node.left), _node(node.comparators[0]))
    called = _call(node) if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) else None
    if called is not None:
        return called
    raise ValueError(f"not a formula SBML can carry: {ast.dump(node)}")
