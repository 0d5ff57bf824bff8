"""Changes of a running tank, asked about a month later."""

from datetime import timedelta

from reedmace.logbook.care.change_reviews import reviews
from tests.support.fitting import BY_ID, NOW, state_of

RUNS = (300, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=600)).isoformat()})
PLAN = (300, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["sweetflag-800"].model_dump()}]})
NEW_MEDIA = {"kind": "media-work", "what": "replaced"}


def timed(days: float, seconds: float):
    return (days, {"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [seconds]})


def test_it_is_asked_after_a_month_and_for_half_a_year() -> None:
    for days, asked in ((20, False), (31, True), (170, True), (190, False)):
        found = reviews(state_of(RUNS, PLAN, (days, NEW_MEDIA)), NOW)
        assert [one.title for one in found] == (["Media replaced"] if asked else []), days


def test_flows_before_and_since_stand_beside_it_and_what_was_read() -> None:
    state = state_of(
        RUNS, PLAN, timed(60, 20), (50, NEW_MEDIA), timed(10, 12), (40, {"kind": "reading", "nitrite_ppm": 0.25})
    )
    (one,) = reviews(state, NOW)
    assert (round(one.flow_before_lph or 0), round(one.flow_after_lph or 0), one.trace) == (360, 600, True)
    (clean,) = reviews(state_of(RUNS, PLAN, (50, NEW_MEDIA), (40, {"kind": "reading", "nitrite_ppm": 0})), NOW)
    assert (clean.flow_before_lph, clean.trace) == (None, False)


def test_a_verdict_stays_with_its_change() -> None:
    (asked,) = reviews(state_of(RUNS, PLAN, (190, NEW_MEDIA), (150, NEW_MEDIA)), NOW)
    said = (1, {"kind": "review", "of": asked.of, "worth": False, "text": "No difference"})
    (one,) = reviews(state_of(RUNS, PLAN, (190, NEW_MEDIA), (150, NEW_MEDIA), said), NOW)
    assert one.said is not None
    assert (one.said.worth, one.said.text) == (False, "No difference")
