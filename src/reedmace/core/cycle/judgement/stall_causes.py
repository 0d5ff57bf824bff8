"""The usual causes of a stall: for each, the evidence in the log for it or against it."""

from collections.abc import Callable, Iterator
from typing import Literal

from pydantic import computed_field

from reedmace.core.chemistry import un_ionised_share
from reedmace.core.chemistry.salinity import is_marine
from reedmace.core.contract import ComputedPart, Working
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, CycleLog
from reedmace.core.cycle.record.water_now import COOL_C, HOT_C, WaterNow
from reedmace.core.film import FILM_SLOWS_PH, FILM_STOPS_PH
from reedmace.core.quantity import CACO3_PER_DKH, formatting

NH3_HOLDS_NITRITE_MG_N_L = 0.3
"""Un-ionised ammonia that inhibits nitrite oxidisers, inside the 0.1 to 1 mg/L of Anthonisen et al. 1976."""
NO_PHOSPHATE_PPM = 0.02
STOP_DAYS, STOP_H = 14.0, 4.0
"""Age and length of a stop that can still explain a stall; untreated changes likewise (memory)."""
MEDIA_DAYS = 21.0
"""Age in days at which media work still explains a stall: bacteria recover in about three weeks (common practice)."""

CauseKind = Literal[
    "alkalinity",
    "acid",
    "cold",
    "hot",
    "overdosed",
    "free-ammonia",
    "phosphate",
    "chlorine",
    "filter-off",
    "off-scale",
    "skimmer",
    "sterile-filter",
    "media",
    "kit",
    "bottle",
]
UNSEEN: frozenset[CauseKind] = frozenset({"off-scale", "kit"})
"""Reasons why a fall would not be visible, which differs from a stall."""


class Finding(ComputedPart):
    """A cause of a stall with its evidence, or one that is ruled out."""

    title: str
    detail: str
    kind: CauseKind | None = None

    @computed_field(description="The detail as it reads inside a sentence")  # type: ignore[prop-decorator]
    @property
    def inside(self) -> str:
        """The detail as it reads inside a sentence, without its full stop."""
        return formatting.inside(self.detail.removesuffix("."))


Findings = Iterator[Finding]


def _filter(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if not log.filter_running:
        hours = log.outages[-1].hours if log.outages else 0.0
        since = f", for {hours:.0f} hours now" if hours >= 1 else ""
        yield Finding(kind="filter-off", title="The filter is off.", detail=f"No water reaches the film{since}.")
        return
    lately = [o for o in log.outages if log.day_now - o.day <= STOP_DAYS and o.hours >= STOP_H]
    if not lately:
        yield Finding(title="The filter.", detail="No stop is logged.")
        return
    longest = max(lately, key=lambda o: o.hours)
    airless = ": a closed canister turns airless within hours" if log.filter_closed else ""
    yield Finding(
        kind="filter-off",
        title="The filter stood still.",
        detail=f"{longest.hours:.0f} hours on day {longest.day:.0f}{airless}.",
    )


def _alkalinity(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if s.kh_now is None:
        return
    if s.wanted.soft:
        yield Finding(
            title="Alkalinity.",
            detail=f"KH {s.kh_now:.1f} dKH: left soft for the animals. Film lives in it too, weeks slower.",
        )
        return
    if not s.low_kh:
        if not s.acid:
            yield Finding(title="Alkalinity.", detail=f"KH {s.kh_now:.1f} dKH is enough for now.")
        return
    dosed = sum(x.raise_mg_n_l for x in log.doses)
    burned = w.line(
        "ΔKH",
        "(7.14 − what comes with it) × N dosed / 17.85",
        f"{log.alkalinity_eaten_per_n():.2f} × {dosed:.2f} / 17.85",
        log.alkalinity_eaten_per_n() * dosed / CACO3_PER_DKH,
        "dKH",
        "epa1993",
    )
    yield Finding(
        kind="alkalinity",
        title="Alkalinity is nearly spent.",
        detail=(
            f"KH reads {s.kh_now:.1f} dKH. The {log.ppm(dosed)} of ammonia dosed so far can burn {burned:.1f} dKH of"
            f" the {log.start_kh_dkh:.1f} you began with."
        ),
    )


def _acid(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if not s.acid or s.ph is None:
        return
    if s.low_kh:
        detail = f"Below about {FILM_STOPS_PH} the film all but stops."
        yield Finding(kind="acid", title=f"So pH fell to {s.ph:.1f}.", detail=detail)
    else:
        detail = (
            f"Below about {s.wanted.ph_low:.1f} even a film that grew up in acid water all but stops."
            if s.wanted.soft
            else f"Below about {FILM_SLOWS_PH} the film slows, below {FILM_STOPS_PH} it all but stops."
        )
        yield Finding(kind="acid", title=f"pH is {s.ph:.1f}.", detail=detail)


def _warmth(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if s.temperature < COOL_C:
        yield Finding(kind="cold", title="It is cold.", detail=f"{formatting.celsius(s.temperature)}.")
    elif s.temperature > HOT_C:
        detail = (
            f"{formatting.celsius(s.temperature)}; above {formatting.celsius.bare(33)} the film slows, above"
            f" {formatting.celsius.bare(36)} it dies."
        )
        yield Finding(kind="hot", title="It is too warm.", detail=detail)
    else:
        yield Finding(title="Warmth.", detail=f"{formatting.celsius(s.temperature)} is warm enough.")


def _overdose(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if s.ammonia and s.ammonia_now > HIGH_AMMONIA_MG_N_L:
        detail = f"{log.ppm(s.ammonia_now)}; above about {log.ppm(HIGH_AMMONIA_MG_N_L)} it holds the film back."
        yield Finding(kind="overdosed", title="Too much ammonia.", detail=detail)


def _free_ammonia(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if not s.ammonia or s.ph is None:
        return
    free = s.ammonia_now * un_ionised_share(s.ph, s.temperature, log.salinity_g_kg)
    if free >= NH3_HOLDS_NITRITE_MG_N_L and s.nitrite and s.nitrite[1] > 0.6:
        w.line("NH3", "TAN × f", f"{s.ammonia_now:.2f} mg N/L at pH {s.ph:g}", free, "mg N/L", "emerson1975")
        yield Finding(
            kind="free-ammonia",
            title="Free ammonia holds the nitrite step.",
            detail=f"{free:.2f} mg/L at pH {s.ph:g}; from 0.1 to 1 it is held back.",
        )


def _phosphate(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    phosphate = log.latest("phosphate_ppm")
    if phosphate and phosphate[1] < NO_PHOSPHATE_PPM:
        detail = "The film cannot grow without it; a bare new tank may have none."
        yield Finding(kind="phosphate", title="No phosphate.", detail=detail)
    elif phosphate:
        yield Finding(title="Phosphate.", detail=f"{phosphate[1]:g} ppm is enough.")


def _chlorine(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    raw = [c for c in log.changes if not c.treated and log.day_now - c.day <= STOP_DAYS]
    rinsed = [m for m in log.media if m.what == "rinsed-tap" and log.day_now - m.day <= MEDIA_DAYS]
    if log.tap.chlorine != "none" and (raw or rinsed):
        at = max([c.day for c in raw] + [m.day for m in rinsed])
        how = "Untreated water went in" if raw else "Media were rinsed at the tap"
        yield Finding(kind="chlorine", title="Chlorine reached the film.", detail=f"{how} on day {at:.0f}.")


def _media(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    lost = [m for m in log.media if m.what in ("replaced", "dried", "taken-off") and log.day_now - m.day <= MEDIA_DAYS]
    if lost:
        how = "A filter was taken off" if lost[-1].what == "taken-off" else f"Media {lost[-1].what}"
        detail = f"{how} on day {lost[-1].day:.0f}, {100 * lost[-1].share:.0f} % of them."
        yield Finding(kind="media", title="Film went out with the media.", detail=detail)


def _sterile_filter(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    fresh = [m for m in log.media if m.what == "new-filter" and log.day_now - m.day <= MEDIA_DAYS]
    if fresh:
        detail = f"Put in on day {fresh[-1].day:.0f}; it carries no film yet and does nothing for a spike."
        yield Finding(kind="sterile-filter", title="The added filter is sterile.", detail=detail)


def _skimmer(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if log.skimmer_running and is_marine(log.salinity_g_kg):
        yield Finding(kind="skimmer", title="The skimmer strips the food.", detail="Off until there are animals.")


def _kit(log: CycleLog, s: WaterNow, w: Working) -> Findings:
    if s.newest and "nitrite" in s.newest.off_scale:
        detail = "It reads its top step or more; dilute to see it move."
        yield Finding(kind="off-scale", title="Nitrite is off the kit.", detail=detail)
    if log.kit.expired:
        yield Finding(kind="kit", title="The kit is past its date.", detail="What it reads may not be so.")


CAUSES: tuple[Callable[[CycleLog, WaterNow, Working], Findings], ...] = (
    _filter,
    _alkalinity,
    _acid,
    _warmth,
    _overdose,
    _free_ammonia,
    _phosphate,
    _chlorine,
    _media,
    _sterile_filter,
    _skimmer,
    _kit,
)
"""In the order they are reported."""
