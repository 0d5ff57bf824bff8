"""View of a cycle before it begins: the plan checked, the first dose, and the methods with the keeper's resources."""

from datetime import datetime

from reedmace.core.chemistry import AmmoniaDoseAnswer, AmmoniaDoseQuestion, ammonia_dose
from reedmace.core.chemistry.salinity import is_marine
from reedmace.core.contract import Part
from reedmace.core.cycle import (
    CycleMethodsAnswer,
    CycleMethodsQuestion,
    CyclePlanAnswer,
    CyclePlanQuestion,
    cycle_methods,
)
from reedmace.core.cycle.judgement.methods import MethodChoice, Resources
from reedmace.core.cycle.judgement.plan import cycle_plan as judge
from reedmace.core.cycle.record.log import DOSED
from reedmace.core.errors import CannotAnswer
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.animals import daily_load
from reedmace.logbook.replay.current_plans import cycle_plan, stock_plan
from reedmace.logbook.replay.entries import Reading
from reedmace.logbook.replay.equipment import stock_load
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

CAUTION = (
    "Aquarium-grade ammonia only, never household cleaner. Gloves; away from children; never together with bleach."
)


class CycleStartView(Part):
    """Everything the plan's form shows. `dose` or why it cannot be computed; `methods` while they are compared."""

    judged: CyclePlanAnswer
    dosed: bool
    marine: bool
    caution: str
    dose: AmmoniaDoseAnswer | None
    dose_refused: str | None
    methods: CycleMethodsAnswer | None


def _phosphate(state: LogbookState) -> float | None:
    read = [e.body.phosphate_ppm for e in state.readings if isinstance(e.body, Reading)]
    return next((p for p in reversed(read) if p is not None), None)


def _judged(state: LogbookState, plan: CyclePlan) -> CyclePlanAnswer:
    load = stock_load(state) if stock_plan(state).animals else None
    return judge(
        CyclePlanQuestion(
            net_l=net_litres(state),
            method=plan.method,
            helpers=plan.helpers,
            temperature_c=plan.temperature_c,
            ph=plan.start_ph,
            kh_dkh=plan.start_kh_dkh,
            phosphate_ppm=_phosphate(state),
            salinity_g_kg=plan.salinity_g_kg,
            tap=plan.tap,
            bottle=plan.bottle,
            plants=plan.plants,
            planned_load_mg_n_l_day=min(daily_load(state), 1000),
            target_ppm=plan.target_ppm,
            animals_low_c=load.temperature_low_c if load else None,
            animals_high_c=load.temperature_high_c if load else None,
            product=plan.product,
            ammonia_source=plan.ammonia_source,
            seed_share=plan.seed_share,
            rock_kg=plan.rock_kg,
            donor=plan.donor,
        )
    )


def _dose(state: LogbookState, plan: CyclePlan) -> tuple[AmmoniaDoseAnswer | None, str | None]:
    if plan.method not in DOSED:
        return None, None
    try:
        question = AmmoniaDoseQuestion(
            net_l=net_litres(state), target_ppm=plan.target_ppm, basis=plan.basis, product=plan.product
        )
        return ammonia_dose(question), None
    except CannotAnswer as error:
        return None, str(error)


def _as_planned(methods: CycleMethodsAnswer, plan: CyclePlan, judged: CyclePlanAnswer) -> CycleMethodsAnswer:
    """The ways with the days of the plan where it is one of them: one fact has one figure on screen."""
    days = {"days_low": judged.pass_day_p10, "days_high": judged.pass_day_p90}

    def is_planned(row: MethodChoice) -> bool:
        return row.fits != "not-here" and row.method == plan.method and set(row.helpers) == set(plan.helpers)

    rows = [row.model_copy(update=days) if is_planned(row) else row for row in methods.methods]
    return methods.model_copy(update={"methods": rows})


def cycle_start_view(
    state: LogbookState, now: datetime, resources: Resources | None = None, *, animals_in: bool = False
) -> CycleStartView:
    """The cycle's plan as saved or typed.

    state: the tank's, with what is typed on screen; now: aware time; resources: what is to hand, while the ways are
    compared; animals_in: whether animals are in already, as far as those ways go.
    """
    plan = cycle_plan(state, now)
    dose, refused = _dose(state, plan)
    judged, methods = _judged(state, plan), None
    if resources is not None:
        methods = cycle_methods(
            CycleMethodsQuestion(
                resources=resources,
                net_l=net_litres(state),
                temperature_c=plan.temperature_c,
                ph=plan.start_ph,
                kh_dkh=plan.start_kh_dkh,
                salinity_g_kg=plan.salinity_g_kg,
                planned_load_mg_n_l_day=min(daily_load(state), 1000),
                animals_in=animals_in,
            )
        )
    return CycleStartView(
        dosed=plan.method in DOSED,
        marine=is_marine(plan.salinity_g_kg),
        caution=f"Nothing is dosed while animals are in. {CAUTION}" if plan.method == "animals-in" else CAUTION,
        judged=judged,
        dose=dose,
        dose_refused=refused,
        methods=methods and _as_planned(methods, plan, judged),
    )
