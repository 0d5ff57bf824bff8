"""The same question through every door gives the same figure, on 66 generated tanks with one, two and three filters."""

import tempfile
from pathlib import Path

import pytest
import wntr

from reedmace.core.computations import compute
from reedmace.core.filter.kinds import kind_of
from reedmace.formats import plumbing_inp
from reedmace.logbook.care.due import due
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan
from reedmace.logbook.replay.equipment import installed_filters, path_of, stock_load, tank_site, temperature_c
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.stages import filter_view, fit_view, keep_view, shopping_list_view
from reedmace.logbook.stages.stage_rows import stage_rows
from tests.support.tanks import AT, bodies_of, state_of

SEEDS = range(66)


@pytest.fixture(scope="module", params=SEEDS, ids=lambda s: f"{1 + s % 3} filters, tank {s}")
def state(request) -> LogbookState:
    return state_of(*bodies_of(request.param))


def shared(state: LogbookState) -> dict:
    """What any computation that knows the tank is told."""
    stock = stock_plan(state)
    return {
        "site": tank_site(state).model_dump(),
        "animals": [a.model_dump() for a in stock.animals],
        "temperature_c": temperature_c(state),
    }


def test_a_filters_flow_is_one_figure_in_filter_fit_compute_and_media(state) -> None:
    filter_stage, fit_stage = filter_view(state), fit_view(state, AT)
    for seen, fitted, installed in zip(
        filter_stage.shown.filters, fit_stage.filters, installed_filters(state), strict=True
    ):
        asked = {
            **shared(state), "filter": installed.filter.model_dump(), "plumbing": installed.plumbing.model_dump(),
            "food_share": installed.food_share,
        }  # fmt: skip
        by_compute = compute("filter-flow", {**asked, "media": [b.model_dump() for b in installed.media]})
        flows = [seen.installed.flow, fitted.installed.flow, by_compute]
        for name in ("delivered_lph", "service_lph", "service_days", "rise_m"):
            values = [getattr(f, name) for f in flows]
            assert values == pytest.approx([values[0]] * 3, rel=1e-9), name
        if installed.media:
            stack = compute("media-stack", {**asked, "baskets": [b.model_dump() for b in installed.media]})
            assert stack.clean_lph == pytest.approx(by_compute.delivered_lph, rel=1e-9)
            assert stack.dirty_lph == pytest.approx(by_compute.service_lph, rel=1e-9)
            assert stack.service_days == pytest.approx(by_compute.service_days, rel=1e-9)


def test_service_flow_never_falls_under_the_one_limit_and_the_chart_ends_there(state) -> None:
    for one in installed_filters(state):
        assert one.flow.service_lph >= 0.7 * one.flow.delivered_lph - 1e-6
        if one.flow.pumped:
            at = min(one.flow.pumped.interval, key=lambda p: abs(p.day - one.flow.service_days))
            assert at.flow_lph == pytest.approx(one.flow.service_lph, rel=0.02)
            assert one.flow.pumped.dirty_lph == pytest.approx(one.flow.service_lph, rel=1e-9)


def test_the_ranked_row_of_a_filter_that_hangs_alone_is_its_own_flow(state) -> None:
    installed = installed_filters(state)
    if len(installed) != 1:
        return
    ranking = compute("rank-filters", rank_question(state).model_dump())
    row = next((c for c in ranking.ranked if c.filter_id == installed[0].filter.id), None)
    if row is not None:
        assert row.delivered_lph == pytest.approx(installed[0].flow.delivered_lph, rel=1e-9)
        assert row.dirty_lph == pytest.approx(installed[0].flow.service_lph, rel=1e-9)
        assert row.service_day == pytest.approx(installed[0].flow.service_days, rel=1e-9)
        assert row.watts == pytest.approx(installed[0].watts)


def test_a_filter_only_looked_at_is_one_figure_in_headline_and_list(state) -> None:
    bare = state.model_copy(update={"filter_plan": None, "fit_plan": None})
    ranking = filter_view(bare).ranking
    for row in [c for c in ranking.ranked if kind_of(c.kind).hosed][:2] + ranking.ranked[:1]:
        shown = filter_view(bare, [row.filter_id]).shown
        assert shown.delivered_lph == pytest.approx(row.delivered_lph, rel=1e-9)
        assert shown.service_lph == pytest.approx(row.dirty_lph, rel=1e-9)
    for pair in ranking.pairs[:1]:
        shown = filter_view(bare, pair.filter_ids).shown
        assert shown.delivered_lph == pytest.approx(pair.delivered_lph, rel=1e-9)
        assert shown.service_lph == pytest.approx(pair.dirty_lph, rel=1e-9)
        assert shown.cost.kwh_year == pytest.approx(pair.watts * 24 * 365.25 / 1000)


def test_epanet_finds_the_flow_of_every_pumped_filter_in_its_export(state) -> None:
    for one in installed_filters(state):
        question = path_of(state, one)
        if question is None or one.flow.delivered_lph < 20:
            continue
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "loop.inp"
            path.write_text(plumbing_inp(question))
            network = wntr.network.WaterNetworkModel(str(path))
            found = wntr.sim.EpanetSimulator(network).run_sim(file_prefix=str(Path(folder) / "run"), version=2.2)
        solved = float(found.link["flowrate"]["pump"].iloc[0]) * 3.6e6
        assert solved == pytest.approx(one.flow.delivered_lph, rel=0.005)


def test_what_is_bought_is_what_is_cut_and_fitted(state) -> None:
    installed = installed_filters(state)
    items = {i.item.lower(): i.amount for i in shopping_list_view(state).items}
    for bore in {r.bore_mm for h in installed for r in h.plan.runs if r.role in ("intake-hose", "return-hose")}:
        cut = sum(
            c.amount
            for h in installed
            for r in h.plan.runs
            for c in h.plan.cuts
            if r.bore_mm == bore and c.item == r.name and r.role in ("intake-hose", "return-hose")
        )
        bought = items[f"hose, {bore:g} mm bore"] * 100
        assert cut <= bought < cut + 50
    for item in ("hose clamps", "valves with quick release", "check valve", "adjusting valve"):
        fitted = sum(c.amount for h in installed for c in h.plan.cuts if c.item == item)
        assert items.get(item, 0) == fitted


def test_the_hose_that_is_counted_is_the_hose_that_is_drawn(state) -> None:
    for one in installed_filters(state):
        if kind_of(one.filter.kind).hosed:
            drawn = sum(r.drawn_cm for r in one.plan.runs if r.role in ("intake-hose", "return-hose")) / 100
            assert one.plumbing.hose_length_m == pytest.approx(min(max(drawn, 0.2), 50))
            assert one.plan.hose_m == pytest.approx(drawn)


def test_uplift_outlet_depth_and_intake_are_the_plans_in_every_step(state) -> None:
    for fitted in fit_view(state, AT).filters:
        one, text = fitted.installed, {s.id: s.detail for s in fitted.steps}
        if "sponge-height" in text:
            assert f"uplift to {one.plan.uplift_cm:.0f} cm" in text["sponge-height"]
            cut = next(c.amount for c in one.plan.cuts if c.item == "uplift tube")
            assert cut == int(one.plan.uplift_cm)
        if "canister-ends" in text:
            assert f"{abs(one.layout.outlet_depth_cm):g} cm" in text["canister-ends"]
        if "hangon-intake" in text:
            assert f"{one.plan.intake_depth_cm:.0f} cm down" in text["hangon-intake"]


def test_run_back_and_free_litres_are_one_figure_in_plan_danger_and_overflow(state) -> None:
    for seen, fitted in zip(filter_view(state).shown.filters, fit_view(state, AT).filters, strict=True):
        if fitted.overflow is None:
            assert fitted.installed.plan.run_back_l == 0
            continue
        assert fitted.overflow.run_back_l == pytest.approx(fitted.installed.plan.run_back_l)
        assert seen.overflow.run_back_l == pytest.approx(fitted.overflow.run_back_l)
        spare = fitted.installed.plan.sump_free_l - fitted.installed.plan.run_back_l
        assert fitted.overflow.spare_l == pytest.approx(spare)


def test_the_number_of_steps_is_one_on_fit_and_on_the_list_of_stages(state) -> None:
    rows = {s.stage: s.words for s in stage_rows(state, AT)}
    view = fit_view(state, AT)
    assert rows["fit"] == f"{view.done_count} of {view.steps_count} steps"
    ids = [(f.installed.key, s.id) for f in view.filters for s in f.steps]
    assert len(set(ids)) == view.steps_count


def test_energy_of_all_filters_is_one_figure_in_filter_and_keep(state) -> None:
    shown = filter_view(state).shown
    assert keep_view(state, AT).cost == shown.cost
    assert shown.cost.kwh_year == pytest.approx(sum(h.watts for h in installed_filters(state)) * 24 * 365.25 / 1000)
    assert shown.delivered_lph == pytest.approx(sum(f.installed.flow.delivered_lph for f in shown.filters))


def test_dirt_is_shared_as_the_water_is(state) -> None:
    installed = installed_filters(state)
    assert sum(h.food_share for h in installed) == pytest.approx(1)
    total = sum(h.flow.delivered_lph for h in installed)
    for one in installed:
        if total > 0:
            assert one.food_share == pytest.approx(one.flow.delivered_lph / total, abs=1e-6)


def test_litres_temperature_and_load_are_one_in_every_stage(state) -> None:
    view, fit = filter_view(state), fit_view(state, AT)
    assert view.volume == fit.volume
    assert view.volume.net_l == pytest.approx(net_litres(state))
    assert tank_site(state).net_l == pytest.approx(view.volume.net_l)
    assert view.temperature_c == rank_question(state).temperature_c == temperature_c(state)
    assert stock_load(state).ammonia_mg_n_day > 0
    assert filter_plan(state).filters


def test_a_sumps_water_counts_with_the_tanks(state) -> None:
    sump = state.tank_plan.body.surroundings.sump
    dry = state.tank_plan.body.model_copy(
        update={"surroundings": state.tank_plan.body.surroundings.model_copy(update={"sump": None})}
    )
    without = state.model_copy(update={"tank_plan": state.tank_plan.model_copy(update={"body": dry})})
    assert net_litres(state) - net_litres(without) == pytest.approx(sump.held_l if sump else 0)


def test_every_date_names_its_filter_where_there_are_several(state) -> None:
    bodies = bodies_of(SEEDS[0])
    assert bodies
    installed = installed_filters(state)
    powers = [
        {"kind": "step-done", "filter_key": h.key, "step_id": f"{kind_of(h.filter.kind).prefix}-power"}
        for h in installed
        if any(s.startswith(f"{kind_of(h.filter.kind).prefix}-leak") for s in kind_of(h.filter.kind).after)
    ]
    plans = [e.body.model_dump(mode="json") for e in (state.tank_plan, state.stock_plan, state.filter_plan)]
    rows = due(state_of(*plans, *powers), AT)
    assert len(rows) == 3 * len(powers)
    assert len({r.key for r in rows}) == len(rows)
    if len(installed) > 1:
        assert all(any(h.filter.name in r.title for h in installed) for r in rows)
