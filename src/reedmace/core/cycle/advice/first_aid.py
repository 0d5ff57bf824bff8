"""First aid: filter, alkalinity, chlorine, temperature, excess ammonia, skimmer, kit."""

from collections.abc import Callable
from typing import Literal

from reedmace.core.chemistry.water_change import Solute
from reedmace.core.contract import Working
from reedmace.core.cycle.advice.action import WARMING_C_DAY, Action, change_for, raise_alkalinity, water_preparation
from reedmace.core.cycle.judgement.stalls import Diagnosis
from reedmace.core.cycle.record.kit_checks import kit_is_stuck, nitrite_never_showed
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, CycleLog
from reedmace.core.cycle.record.suspect_readings import kh_interval
from reedmace.core.cycle.record.water_now import COOL_C, WaterNow, untreated_changes
from reedmace.core.film import THETA_PER_DEGREE
from reedmace.core.quantity import formatting

WARM_C = 27.0
"""Lower end of the 27 to 29 °C that speed up an empty tank (common practice)."""
FINAL_MOST = 0.9
"""Largest share of the water changed at one time in an empty tank (common practice)."""


KH_STANDS_DAYS = 2.0
"""Age at which a KH read before a pH no longer explains it, days (memory)."""
SHORT_SHARE = 0.8
"""Share of the target KH under which alkalinity is taken for the reason of an acid reading (memory)."""


def _filter(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if not log.filter_running:
        return Action(
            do="start-filter",
            title="Get the filter running",
            detail="Rinse a closed canister before it starts again; check that water moves.",
            reason="Film without moving water suffocates within hours.",
            when="now",
            caution="Unplug before hands go in; dry the plug.",
        )
    return None


SPENT_PH, FULL_SHARE, LEAST_RENEWED = 0.38, 0.9, 0.3
"""Fall of pH that tells of bicarbonate down to under a half, share of the tap's KH that new water brings back, and the
least share changed for it (a stated judgement).
"""


def renewed_share(log: CycleLog, s: WaterNow) -> float:
    """Share of the water to renew where bacteria in an empty soft tank have eaten its little KH; 0 where they have not.

    log: the cycle's; s: the water now. Soda would end the soft water its animals want; the tap's own KH does not. pH is
    asked for since drops count a KH under one as one (common practice).
    """
    kh, ph, tap_kh = s.kh_now, log.latest("ph"), log.tap_kh_dkh()
    if not s.wanted.soft or log.animals_are_in() or log.co2_given or kh is None or ph is None:
        return 0.0
    fresh_ph = log.start_ph if log.tap.ph is None else log.tap.ph
    newer = any(c.day >= ph[0] for c in log.changes) or any(a.day >= ph[0] for a in log.alkalinity)
    held = sum(kh_interval(kh, log.kit.kh_step_dkh)) / 2
    if newer or ph[1] > min(fresh_ph, log.start_ph) - SPENT_PH or held >= FULL_SHARE * tap_kh:
        return 0.0
    return min(max((FULL_SHARE * tap_kh - held) / (tap_kh - held), LEAST_RENEWED), FINAL_MOST)


def _renewal(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    share = renewed_share(log, s)
    if not share or s.ph is None:
        return None
    litres = w.sum("V", "share × net litres", {"share": share, "net litres": log.net_l}, "L", "practice")
    return Action(
        do="change-water",
        title=f"Change {formatting.litres(litres)}",
        detail=water_preparation(log, s),
        reason=(
            f"pH fell to {s.ph:.1f}: the bacteria have eaten the little bicarbonate of this soft water and stand nearly"
            " still. New water brings the tap's own back; soda would end the soft water your animals want."
        ),
        when="now",
        amount=litres,
        amount_unit="L",
        share=share,
    )


def alkalinity_asked(log: CycleLog, s: WaterNow) -> Literal["raise", "test", "nothing"]:
    """What low or acid water asks for: soda, a test of KH that tells whether soda is the remedy, or neither.

    log: the cycle's; s: the water now. Acid water with KH enough holds CO2, and soda is none of it.
    """
    if s.low_kh:
        return "raise"
    kh, ph = log.latest("kh_dkh"), log.latest("ph")
    # Where CO2 is given, low pH is its doing and says nothing of KH that was read and is not low.
    if not s.acid or ph is None or (log.co2_given and kh is not None):
        return "nothing"
    if kh is None or s.kh_now is None or kh[0] < ph[0] - KH_STANDS_DAYS:
        return "test"
    return "raise" if s.kh_now < SHORT_SHARE * s.wanted.kh_target_dkh else "nothing"


def _alkalinity(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    asked = alkalinity_asked(log, s)
    if asked == "raise":
        return raise_alkalinity(log, s, w)
    if asked == "test" and s.ph is not None:
        return Action(
            do="test",
            title="Test KH",
            detail=f"pH reads {s.ph:.1f}, which slows the film; KH tells whether alkalinity is the reason.",
            reason="Bicarbonate is dosed by KH, not by pH.",
            when="now",
        )
    return None


def _chlorine(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if untreated_changes(log):
        return Action(
            do="treat-water",
            title="Treat the water now",
            detail="Conditioner to the whole tank's litres, not to the bucket's.",
            reason="Untreated water went in; what chlorine is left goes on killing the film.",
            when="now",
        )
    return None


def _warmth(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if s.temperature < COOL_C:
        return Action(
            do="warm",
            title=f"Warm the water to {formatting.celsius(WARM_C)}",
            detail=(
                "While there are no animals; a degree or two a day, and back to the animals' range before they come."
            ),
            reason=(
                f"At {formatting.celsius(s.temperature)} the film works at about"
                f" {100 * THETA_PER_DEGREE ** (s.temperature - WARM_C):.0f} % of its pace at"
                f" {formatting.celsius(WARM_C)}."
            ),
            when="now",
            to_c=WARM_C,
            step_c=WARMING_C_DAY,
            caution="Never run a heater out of water.",
        )
    if d.has("hot"):
        return Action(
            do="cool",
            title=f"Heater down to {formatting.celsius(28)}",
            detail="A couple of degrees a day.",
            reason=f"Above {formatting.celsius(33)} the film slows, above {formatting.celsius.bare(36)} it dies.",
            when="now",
            to_c=28,
            step_c=WARMING_C_DAY,
        )
    return None


def _overdose(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if d.has("overdosed") and log.tap.released_mg_n_l() < 0.6 * HIGH_AMMONIA_MG_N_L:
        solute = Solute(
            what="ammonia",
            now_ppm=min(s.ammonia_now, 1e4),
            tap_ppm=log.tap.released_mg_n_l(),
            target_ppm=0.6 * HIGH_AMMONIA_MG_N_L,
        )
        litres, parts, shift = change_for(log, s, solute, 0.0, FINAL_MOST, w)
        return Action(
            do="change-water",
            title=f"Change {formatting.litres(litres)}" + (f", {parts} times" if parts > 1 else ""),
            detail=water_preparation(log, s),
            reason=(
                f"Ammonia at {log.ppm(s.ammonia_now)} is over the {log.ppm(HIGH_AMMONIA_MG_N_L)} at which it holds the"
                " film back."
            ),
            when="now",
            amount=litres,
            amount_unit="L",
            times_count=parts,
            ph_shift=shift,
        )
    return None


def _skimmer(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if d.has("skimmer"):
        return Action(
            do="skimmer-off",
            title="Skimmer off",
            detail="Until there are animals.",
            reason="It takes out what the film should eat.",
            when="now",
        )
    return None


def _off_scale(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if d.has("off-scale"):
        return Action(
            do="dilute-test",
            title="Read nitrite diluted",
            detail="One part tank water to three of nitrite-free water, then multiply by four.",
            reason="Off the scale says only 'this or more': a fall would not show.",
            when="tomorrow",
        )
    return None


def _kit(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if d.has("kit"):
        return Action(
            do="test",
            title="Test with a kit in date",
            detail="Beside the old one, once, to see how far that one is out.",
            reason="Reagents fade: an old kit can read zero where there is ammonia.",
            when="tomorrow",
        )
    return None


def _stuck_kit(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    return kit_test() if kit_is_stuck(log) else None


def kit_test() -> Action:
    """A test of the kit itself."""
    return Action(
        do="test",
        title="Test the kit itself",
        detail="Treated tap water must read the tap's own; with a drop of ammonia in the glass it must read more.",
        reason="The same step every time, whatever went in or out, is the kit and not the water.",
        when="now",
    )


def other_kit_test() -> Action:
    """A test of nitrite with another kit."""
    return Action(
        do="test-other-kit",
        title="Read nitrite with another kit",
        detail="A shop's or a friend's, logged as of another kit; with your own shake the bottles, and wait as long as"
        " its sheet says.",
        reason="The film that takes ammonia makes nitrite of it, and the film for nitrite comes weeks later.",
        when="now",
    )


def _blind_to_nitrite(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if not nitrite_never_showed(log):
        return None
    return other_kit_test().model_copy(
        update={"detail": "A shop's or a friend's, logged as of another kit. Or test nitrate: it must have risen."}
    )


def _phosphate(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    if d.has("phosphate"):
        return Action(
            do="feed-phosphate",
            title="A pinch of fish food",
            detail="Once a week, or a plant fertiliser that has phosphate.",
            reason="Nothing grows without phosphorus, and the test finds none.",
            when="now",
        )
    return None


def _next_portion(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> Action | None:
    begun = any(log.day_now - a.day <= 1.5 for a in log.alkalinity)
    if not begun or alkalinity_asked(log, s) == "raise" or s.kh_now is None:
        return None
    if s.kh_now < s.wanted.kh_target_dkh - log.kit.kh_step_dkh / 2:
        return raise_alkalinity(log, s, w)
    return None


_LOOKS: tuple[Callable[[CycleLog, WaterNow, Diagnosis, Working], Action | None], ...] = (
    _filter, _alkalinity, _renewal, _chlorine, _warmth, _overdose, _skimmer, _stuck_kit, _blind_to_nitrite,
    _off_scale, _kit, _phosphate, _next_portion,
)  # fmt: skip
"""In order of urgency."""


def first_aid(log: CycleLog, s: WaterNow, d: Diagnosis, w: Working) -> list[Action]:
    """Urgent actions at any stage, most urgent first.

    log: the cycle's; s: the water now; d: the causes found; w: gets the lines.
    """
    return [action for look in _LOOKS if (action := look(log, s, d, w))]
