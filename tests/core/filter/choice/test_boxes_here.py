"""Whether boxes do on a tank, and the one reason that is said where they do not."""

from itertools import pairwise

import numpy as np
import pytest

from reedmace.core.filter.choice import boxes_here as module
from reedmace.core.filter.choice.boxes_here import CLOGS_DAYS, FAR_MORE, BoxesHere, boxes_here, judged_box, too_loud_db
from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.sizing_schools import AS_ASKED_SHARE, ENOUGH_SHARE
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM, SHOAL

TABLE = table_of(SAMPLE_BOXES)


def here(table=TABLE, animals=SHOAL, **site: object) -> BoxesHere:
    return boxes_here(RankFiltersQuestion.model_validate({"site": {**ROOM, **site}, "animals": animals}), table)


def test_a_box_does_exactly_where_no_reason_is_given() -> None:
    found = here()
    for count in (1, 2, 3):
        able = found.do(count)
        assert able.tolist() == [found.why_not(i, count) == "" for i in range(len(TABLE))]
    assert found.do().any()
    assert not found.do().all()


def test_more_of_a_box_never_lacks_film_that_fewer_had() -> None:
    found = here()
    short = [np.array([found.why_not(i, n) == "film" for i in range(len(TABLE))]) for n in (1, 2, 3)]
    for fewer, more in pairwise(short):
        assert not (more & ~fewer).any()


@pytest.mark.parametrize(
    ("site", "words"),
    [
        ({"behind_cm": 0}, "no room behind"),
        ({"beneath_cm": 5}, "no room under the tank"),
        ({"sockets": 0}, "no socket"),
    ],
)
def test_what_the_place_lacks_is_named_in_three_words(site: dict, words: str) -> None:
    found = here(**site)
    assert words in {found.why_not(i) for i in range(len(TABLE))}


def test_sound_disturbs_by_the_room() -> None:
    bedroom, workshop = here(kind="bedroom"), here(kind="workshop")
    assert too_loud_db(bedroom.q) < too_loud_db(workshop.q)
    loud = [i for i in range(len(TABLE)) if bedroom.why_not(i) == "too loud for a bedroom"]
    for i in loud:
        assert bedroom.r.sound[i] > too_loud_db(bedroom.q)
    assert not any(workshop.why_not(i).startswith("too loud for a bedroom") for i in range(len(TABLE)))


def test_words_of_flow_are_true_of_the_figures() -> None:
    for net in (20, 129, 900):
        found = here(net_l=net)
        for i in range(len(TABLE)):
            why, service = found.why_not(i), found.r.service[i]
            if why == "too little flow" and not found.broken(i):
                assert service < ENOUGH_SHARE * found.asked.low
            if why == "far too much":
                assert service > FAR_MORE * found.asked.high
            if why.startswith("clogs every"):
                assert found.r.days[i] < CLOGS_DAYS


def test_a_box_that_carries_alone_carries_beside_another() -> None:
    found = here()
    alone = found.carries_alone()
    assert (found.r.service[alone] >= found.asked.load_lph).all()
    assert (found.r.film[alone] + found.q.site.film_here_m2 >= found.asked.film_m2).all()


def test_boxes_wider_together_than_the_tank_do_not_stand_side_by_side() -> None:
    found = here(length_cm=30)
    wide = [i for i, f in enumerate(SAMPLE_BOXES) if f.kind == "canister" and 2 * f.width_cm > 30]
    assert wide
    assert not any(found.do(2)[i] for i in wide)


def test_a_sentence_says_the_same_as_the_short_reason() -> None:
    found = here()
    for i in range(len(TABLE)):
        judged = judged_box(found, i)
        assert judged.does == (judged.short == "")
        assert judged.words.endswith(".")
        if judged.does:
            assert judged.words.startswith("Moves")
            assert "in service where" in judged.words
            share = found.r.service[i] / found.asked.low
            assert ("slow" in judged.words or "under" in judged.words) == (share < AS_ASKED_SHARE)
            assert ("a little" in judged.words) == (ENOUGH_SHARE <= share < AS_ASKED_SHARE)
        if judged.short == "film" and not found.broken(i):
            assert "hold filter bacteria for" in judged.words


def test_far_too_strong_for_quiet_animals_is_said_of_what_cannot_be_throttled() -> None:
    betta = [{"species_id": "betta", "count": 1}]
    found = here(animals=betta, net_l=30, length_cm=40, width_cm=25, water_depth_cm=28)
    strong = {f.kind for i, f in enumerate(SAMPLE_BOXES) if found.stirring_fault(i).startswith("too strong for")}
    assert strong
    assert not any(kind_of(kind).hosed or kind_of(kind).on_rim for kind in strong)


def test_flows_of_a_long_table_are_kept_for_the_same_water_only(monkeypatch: pytest.MonkeyPatch) -> None:
    worked_out = []
    monkeypatch.setattr(module, "flows_here", lambda *asked: worked_out.append(1) or flows_here(*asked))
    monkeypatch.setattr(module, "LARGE_TABLE", 1)
    table = table_of(SAMPLE_BOXES)
    first = here(table, net_l=77)
    quieter = RankFiltersQuestion.model_validate(
        {"site": {**ROOM, "net_l": 77}, "animals": SHOAL, "priorities": {"quiet": 5}}
    )
    again = boxes_here(quieter, table)
    assert len(worked_out) == 1
    assert again.r.service == pytest.approx(first.r.service)
    here(table, net_l=78)
    assert len(worked_out) == 2
