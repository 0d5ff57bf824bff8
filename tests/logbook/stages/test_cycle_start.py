"""The cycle's plan as typed: judged, dosed and compared in one answer, by the same sums as anywhere else."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle.judgement.methods import Resources
from reedmace.core.filter.kinds import KINDS
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.animals import daily_load
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.stages import Draft, cycle_start_view, with_draft
from tests.support.tanks import AT, bodies_of, state_of


def typed(**more) -> CyclePlan:
    return CyclePlan(kind="cycle-plan", started_at=AT, **more)


@pytest.mark.parametrize("seed", [0, 1, 5])
def test_what_is_typed_is_judged_and_dosed_as_the_compute_door_does(seed: int) -> None:
    state = state_of(*bodies_of(seed))
    plan = typed(start_kh_dkh=3, start_ph=7.2, target_ppm=1.5)
    view = cycle_start_view(with_draft(state, Draft(cycle_plan=plan)), AT)
    litres = net_litres(state)
    dose = compute(
        "ammonia-dose", {"net_l": litres, "target_ppm": 1.5, "basis": "ion", "product": plan.product.model_dump()}
    )
    assert view.dose.grams == pytest.approx(dose.grams)
    asked = {"net_l": litres, "kh_dkh": 3, "ph": 7.2, "target_ppm": 1.5, "planned_load_mg_n_l_day": daily_load(state)}
    assert view.judged.kh_eaten_dkh == pytest.approx(compute("cycle-plan", asked).kh_eaten_dkh)
    assert view.methods is None


def test_ways_are_compared_only_while_asked_for_and_in_this_tanks_litres() -> None:
    state = state_of(*bodies_of(1))
    mature = Resources(mature_media="own", media_share=0.8)
    view = cycle_start_view(state, AT, mature)
    assert view.methods is not None
    best = view.methods.methods[0]
    assert best.fits == "best"
    assert best.method in ("seeded-filter", "side-by-side")


def test_the_plan_and_its_row_among_the_ways_say_the_same_days() -> None:
    state = with_draft(state_of(*bodies_of(0)), Draft(cycle_plan=typed(start_kh_dkh=6, target_ppm=3)))
    view = cycle_start_view(state, AT, Resources())
    row = next(m for m in view.methods.methods if m.method == "measured-ammonia" and not m.helpers)
    assert row.fits != "not-here"
    assert (row.days_low, row.days_high) == (view.judged.pass_day_p10, view.judged.pass_day_p90)
    others = [m for m in view.methods.methods if m is not row and m.days_low is not None]
    assert all(m.days_low != row.days_low for m in others)


@pytest.mark.parametrize("method", ["planted", "fish-food", "animals-in"])
def test_a_way_without_a_bottle_has_no_first_dose(method: str) -> None:
    state = state_of(*bodies_of(0))
    view = cycle_start_view(with_draft(state, Draft(cycle_plan=typed(method=method))), AT)
    assert view.dose is None
    assert view.dose_refused is None


def test_every_kind_has_a_title_of_its_own() -> None:
    titles = [kind.title for kind in KINDS]
    assert len(set(titles)) == len(titles)
    assert all(title[0].isupper() for title in titles)
