"""The cycle model of one tank as SBML Level 3 Version 1.

The logged past is in it as events; the advice from today on is not, since it depends on what the course does.
"""

from xml.etree import ElementTree as ET

import numpy as np
from numpy.typing import NDArray

from reedmace.core.cycle.model.ensemble import USUAL_DRAWS, condition
from reedmace.core.cycle.model.inputs import model_input_of
from reedmace.core.cycle.model.nitrogen_kernel import (
    A0,
    A_MAX,
    ADD_ALKALINITY,
    ADD_TAN,
    B0,
    BASE,
    CHANGE_WATER,
    DOSE_WORTH,
    FEED,
    FIRST_NITRATE,
    GROWTH,
    KA,
    KILL_FILM,
    LAG,
    NITRIFIED,
    PLANT_HALF,
    PLANT_HALF_NITRATE,
    PLANTS,
    STEPS_PER_DAY,
    THETA,
    WAKING_PER_DAY,
    WORK,
)
from reedmace.core.cycle.record.log import CycleLog
from reedmace.formats.mathml import math_of

SBML = "http://www.sbml.org/sbml/level3/version1/core"
XHTML = "http://www.w3.org/1999/xhtml"
Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

STATES = ("TAN", "NO2", "NO3", "ALK", "FILM_A", "FILM_B", "PLANT_N", "ASLEEP")
CONSTANTS = (
    "A0",
    "B0",
    "mu_a",
    "mu_b",
    "K_a",
    "K_b",
    "decay",
    "CO2",
    "A_max",
    "K_i",
    "lag",
    "first_nitrate",
    "dose_worth",
)
_CONDITIONS = ((THETA, "theta"), (KA, "K_acid"), (FEED, "made"), (PLANTS, "uptake"), (GROWTH, "growth"), (WORK, "work"))
_RULES = (
    # Assignment rules, in order; the same model as core/cycle/model/nitrogen_kernel.py, for another program.
    ("tan", "max(TAN, 0)"),
    ("no2", "max(NO2, 0)"),
    ("no3", "max(NO3, 0)"),
    ("alk", "max(ALK, 0)"),
    ("H", "4.467e-7 * CO2 / max(alk / 50.04, 0.004)"),
    ("comfort", "1 / (1 + (H * 5.62e6) ** 3 + (6.3e-10 / H) ** 2)"),
    ("NH3", "tan * K_acid / (K_acid + H)"),
    ("take_a", "theta * work * comfort / (1 + ASLEEP) * alk / (alk + 4) * tan / (tan + K_a) / (1 + NH3 / 12)"),
    ("take_b", "theta * work * comfort / (1 + ASLEEP) * no2 / (no2 + K_b) / (1 + NH3 / K_i)"),
    ("plants_tan", f"uptake * tan / (tan + {PLANT_HALF})"),
    ("plants_no3", f"uptake * {PLANT_HALF} / (tan + {PLANT_HALF}) * no3 / (no3 + {PLANT_HALF_NITRATE})"),
)
_RATES = (
    ("TAN", "made - FILM_A * take_a - plants_tan"),
    ("NO2", "FILM_A * take_a - FILM_B * take_b"),
    ("NO3", "FILM_B * take_b - plants_no3"),
    ("ALK", f"{BASE} * (made + plants_no3 - plants_tan) - {NITRIFIED} * FILM_A * take_a"),
    ("FILM_A", "FILM_A * (growth * mu_a * take_a * (1 - FILM_A / A_max) - decay * theta)"),
    ("FILM_B", "FILM_B * (growth * mu_b * take_b * (1 - FILM_B / A_max) - decay * theta)"),
    ("PLANT_N", "plants_tan + plants_no3"),
    ("ASLEEP", f"-{WAKING_PER_DAY} * ASLEEP"),
)
NOTES = (
    "Concentrations in mg N/L, alkalinity in mg/L CaCO3, films in mg N/L/day of capacity at 25 degrees Celsius, time in"
    " days. ASLEEP is film asleep over film awake: what is new to a tank does nothing at first. Written by Reedmace"
    " from the tank's log up to today; what is advised from then on is not part of it."
)


def typical_parameters(log: CycleLog, draws: int = USUAL_DRAWS) -> Floats:
    """Weighted median of the ensemble, in the kernel's column order (13,). log: the cycle's; draws: how many."""
    ensemble = condition(log, draws)
    return np.exp(ensemble.weights @ ensemble.rows)


def cycle_sbml(log: CycleLog, parameters: Floats | None = None, name: str = "tank") -> str:
    """SBML text of a tank's cycle.

    log: the cycle's; parameters: (13,), those of the forecast left out; name: of the tank.
    """
    values = typical_parameters(log) if parameters is None else parameters
    days = int(log.day_now) + 90
    model_input = model_input_of(log, days)
    ET.register_namespace("", SBML)
    ET.register_namespace("math", "http://www.w3.org/1998/Math/MathML")
    root = ET.Element(f"{{{SBML}}}sbml", level="3", version="1")
    model = ET.SubElement(root, f"{{{SBML}}}model", id="cycle", name="".join(c for c in name if c.isprintable()))
    notes = ET.SubElement(ET.SubElement(model, f"{{{SBML}}}notes"), f"{{{XHTML}}}p")
    notes.text = NOTES
    parameters_list = ET.SubElement(model, f"{{{SBML}}}listOfParameters")

    def parameter(identity: str, value: float | None, constant: bool) -> None:
        row = ET.SubElement(parameters_list, f"{{{SBML}}}parameter", id=identity)
        if value is not None:
            row.set("value", f"{value!r}")
        row.set("constant", "true" if constant else "false")

    asleep = float(np.exp(WAKING_PER_DAY * values[LAG]))
    first = [*model_input.start, values[A0], values[B0], 0.0, asleep]
    first[2] *= values[FIRST_NITRATE]
    for state, value in zip(STATES, first, strict=True):
        parameter(state, float(value), False)
    for constant, value in zip(CONSTANTS, values, strict=True):
        parameter(constant, float(value), True)
    for column, name in _CONDITIONS:
        parameter(name, float(model_input.conditions[0, column]), False)
    for rule, _ in _RULES:
        parameter(rule, None, False)
    rules = ET.SubElement(model, f"{{{SBML}}}listOfRules")
    for variable, formula in _RULES:
        ET.SubElement(rules, f"{{{SBML}}}assignmentRule", variable=variable).append(math_of(formula))
    for variable, formula in _RATES:
        ET.SubElement(rules, f"{{{SBML}}}rateRule", variable=variable).append(math_of(formula))
    events = _events(model_input.steps, model_input.kinds, model_input.values, model_input.tap, values)
    events += [
        (float(day), {name: f"{float(model_input.conditions[day, column])!r}" for column, name in _CONDITIONS})
        for day in range(1, days + 1)
        if not np.array_equal(model_input.conditions[day], model_input.conditions[day - 1])
    ]
    if events:
        _write_events(model, sorted(events, key=lambda e: e[0]))
    ET.indent(root)
    return '<?xml version="1.0" encoding="UTF-8"?>\n' + ET.tostring(root, encoding="unicode") + "\n"


def _events(steps: Ints, kinds: Ints, values: Floats, tap: Floats, own: Floats) -> list[tuple[float, dict[str, str]]]:
    found: list[tuple[float, dict[str, str]]] = []
    most = float(own[A_MAX])
    for at, kind, number in zip(steps, kinds, values, strict=True):
        value = float(number)
        if kind == ADD_TAN:
            change = {"TAN": f"TAN + {value * float(own[DOSE_WORTH])!r}"}
        elif kind == CHANGE_WATER:
            change = {
                state: f"{state} * {1 - value!r} + {float(tap[i]) * value!r}" for i, state in enumerate(STATES[:4])
            }
        elif kind == ADD_ALKALINITY:
            change = {"ALK": f"ALK + {value!r}"}
        elif kind == KILL_FILM:
            change = {film: f"{film} * {1 - value!r}" for film in ("FILM_A", "FILM_B")}
        else:
            change = {
                film: f"if_({film} + {value!r} < {most!r}, {film} + {value!r}, {most!r})"
                for film in ("FILM_A", "FILM_B")
            }
            # Added bacteria are active. A change is computed from the values before it, whatever its order here.
            change["ASLEEP"] = f"ASLEEP * FILM_A / (FILM_A + {value!r} * (1 + ASLEEP))"
        found.append((int(at) / STEPS_PER_DAY, change))
    return found


def _write_events(model: ET.Element, events: list[tuple[float, dict[str, str]]]) -> None:
    rows = ET.SubElement(model, f"{{{SBML}}}listOfEvents")
    for number, (at, change) in enumerate(events):
        event = ET.SubElement(rows, f"{{{SBML}}}event", id=f"event_{number}", useValuesFromTriggerTime="false")
        # At time zero a trigger must change to true, so it starts as false.
        trigger = ET.SubElement(event, f"{{{SBML}}}trigger", initialValue="false", persistent="true")
        trigger.append(math_of(f"time >= {at!r}"))
        # Simultaneous events happen in the order they were written.
        ET.SubElement(event, f"{{{SBML}}}priority").append(math_of(f"{len(events) - number}"))
        assignments = ET.SubElement(event, f"{{{SBML}}}listOfEventAssignments")
        for variable, formula in change.items():
            ET.SubElement(assignments, f"{{{SBML}}}eventAssignment", variable=variable).append(math_of(formula))
