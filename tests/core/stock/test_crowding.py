"""Too many animals for a water, whatever the filter."""

from reedmace.core.stock.crowding import too_many
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY
from reedmace.core.stock.waste_load import WasteLoadAnswer, WasteLoadQuestion, waste_load


def load(litres: float, **counts: int) -> WasteLoadAnswer:
    animals = [{"species_id": name.replace("_", "-"), "count": n} for name, n in counts.items()]
    return waste_load(WasteLoadQuestion.model_validate({"net_l": litres, "animals": animals}))


def test_what_keeps_up_is_not_called_too_many() -> None:
    few = load(200, neon_tetra=20)
    assert few.today_mg_n_day < CROWDED_MG_N_L_DAY * 200
    assert too_many(few, 200, 100, []) is None


def test_the_number_or_the_tank_that_would_do_does() -> None:
    crowd = load(60, guppy=300)
    said = too_many(crowd, 60, 60, [])
    assert said is not None
    keeps = int(said.split("make. ")[1].split(" ×")[0])
    litres = float(said.split("a tank of ")[1].split(" L")[0])
    assert load(60, guppy=keeps).today_mg_n_day <= CROWDED_MG_N_L_DAY * 60 * 1.001
    assert load(60, guppy=keeps + 1).today_mg_n_day > CROWDED_MG_N_L_DAY * 60
    assert load(litres, guppy=300).today_mg_n_day <= CROWDED_MG_N_L_DAY * litres * 1.001
    assert litres % 10 == 0


def test_several_kinds_are_told_by_their_share_and_a_large_one_fits_not_once() -> None:
    mixed = too_many(load(60, guppy=200, platy=100), 60, 60, [])
    assert mixed is not None
    assert "% of them, or a tank of" in mixed
    giant = too_many(load(60, oscar=2), 60, 60, [])
    assert giant is not None
    assert "Not one oscar fits it; a tank of" in giant
