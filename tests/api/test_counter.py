"""The counter: yes or no without an account, as a tank of the same facts would say."""

import pytest

GUPPIES = [{"species_id": "guppy", "count": 8}]


def ask(visitor, **question):
    return visitor().client.post("/api/counter", json=question)


def test_without_boxes_it_says_what_any_shop_can_fill(visitor) -> None:
    answer = ask(visitor, litres=100, animals=GUPPIES).json
    assert answer["verdict"] == answer["ask_for"]
    assert "sold for" in answer["verdict"] or "whose box says" in answer["verdict"]
    assert answer["boxes"] == []


def test_one_box_is_yes_or_no_in_the_first_word_with_its_figures(visitor) -> None:
    good = ask(visitor, litres=100, animals=GUPPIES, boxes=[{"kind": "sponge", "tank_up_to_l": 150}]).json
    assert good["verdict"].startswith("Yes: Box 1.")
    bad = ask(
        visitor, litres=200, animals=[{"species_id": "oscar", "count": 2}], boxes=[{"kind": "sponge", "box_lph": 150}]
    )
    assert bad.json["verdict"].startswith("No: Box 1.")
    assert bad.json["boxes"][0]["words"] in bad.json["verdict"]


def test_a_kind_not_said_is_judged_as_every_kind_it_may_be(visitor) -> None:
    box = {"box_us_gal_per_hour": 264, "watts": 20, "max_head_m": 1.6}
    answer = ask(visitor, litres=100, animals=GUPPIES, boxes=[box]).json
    (row,) = answer["boxes"]
    assert row["answer"] == "depends"
    assert len(row["as_kinds"]) >= 3
    assert answer["verdict"].startswith("It depends on its kind")
    said = ask(visitor, litres=100, animals=GUPPIES, boxes=[{**box, "kind": "canister"}]).json
    assert said["verdict"].startswith("Yes")


def test_it_says_what_a_tank_with_the_same_facts_says(visitor, keeper) -> None:
    box = {"kind": "hang-on", "box_lph": 600, "name": "Weir"}
    counter = ask(visitor, litres=100, animals=GUPPIES, boxes=[box]).json
    tank = keeper.send("POST", "/api/tanks", {"name": "Same", "litres": 100}).json["id"]
    keeper.write(tank, {"kind": "stock-plan", "animals": GUPPIES})
    keeper.send("POST", "/api/shelf", {"boxes": [{"key": "the-same-box", "box": {"label": box}}]})
    view = keeper.send("POST", f"/api/tanks/{tank}/views/filter", {}).json
    assert view["types"]["verdict"] == counter["ask_for"]
    (here,), (there,) = view["shelf"]["rows"], counter["boxes"]
    assert (here["answer"], here["words"]) == (there["answer"], there["words"])


def test_too_many_animals_come_first_whatever_the_box(visitor) -> None:
    answer = ask(
        visitor, litres=60, animals=[{"species_id": "oscar", "count": 4}], boxes=[{"kind": "canister", "box_lph": 1200}]
    ).json
    assert answer["verdict"].startswith("No filter makes up for it")


@pytest.mark.parametrize(
    "question",
    [
        {"litres": 0},
        {"litres": 100, "boxes": [{"watts": 5}]},
        {"litres": 100, "boxes": [{"box_lph": 300}] * 5},
        {"litres": 100, "animals": [{"species_id": "no such", "count": 1}]},
        {"boxes": []},
    ],
    ids=["no litres", "a box without flow", "five boxes", "an unknown animal", "nothing"],
)
def test_what_cannot_be_answered_is_refused_with_its_field(visitor, question: dict) -> None:
    answer = ask(visitor, **question)
    assert answer.status_code == 422
    assert answer.json["errors"]


def test_the_water_is_that_of_the_animals_and_is_said(visitor) -> None:
    fresh = ask(visitor, litres=200, animals=GUPPIES).json
    salt = ask(visitor, litres=200, animals=[{"species_id": "ocellaris-clownfish", "count": 2}]).json
    assert "fresh water" in fresh["assumed"]
    assert "salt water" in salt["assumed"]
    assert salt["ask_for"] != fresh["ask_for"]
    said = ask(visitor, litres=200, animals=GUPPIES, water="brackish").json
    assert not any("water" in words for words in said["assumed"])


def test_what_no_filter_mends_is_said_beside_a_box_that_does(visitor) -> None:
    together = [{"species_id": "fancy-goldfish", "count": 2}, {"species_id": "discus", "count": 4}]
    answer = ask(visitor, litres=200, animals=together, boxes=[{"kind": "canister", "box_lph": 1500}]).json
    assert answer["clashes"]
    assert ask(visitor, litres=100, animals=GUPPIES).json["clashes"] == []


def test_a_box_that_may_do_is_not_passed_over_beside_one_that_does(visitor) -> None:
    unsaid = {"box_us_gal_per_hour": 264, "watts": 20, "max_head_m": 1.6}
    answer = ask(visitor, litres=100, animals=GUPPIES, boxes=[unsaid, {"kind": "hang-on", "box_lph": 600}]).json
    assert answer["verdict"] == "Yes: Box 2 does; Box 1 may do, by its kind."
