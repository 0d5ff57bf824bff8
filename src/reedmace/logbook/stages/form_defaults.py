"""Initial values of forms, so that the screens hold no defaults of their own."""

from typing import Annotated

from pydantic import Field

from reedmace.core.air.air_supply import AirOutlet, AirSupplyQuestion
from reedmace.core.chemistry.ammonia_dose import AmmoniaProduct, LabelProduct, PowderProduct, SolutionProduct
from reedmace.core.chemistry.kh_titration import KhTitrationQuestion
from reedmace.core.contract import Part, number
from reedmace.core.cycle import CloudyWaterQuestion
from reedmace.core.cycle.judgement.methods import Resources
from reedmace.core.film import SeedDonor
from reedmace.core.filter.kind_parts.placement import Layout
from reedmace.core.filter.site.site import Priorities
from reedmace.core.fit import FilterMoveQuestion
from reedmace.core.flow.operating_point_schemas import Fitting
from reedmace.core.stock import Animals, Species
from reedmace.core.tank import Drain, Sump
from reedmace.core.upkeep import HospitalQuestion
from reedmace.logbook.plans.plan_kinds import FilterPlan, TankPlan
from reedmace.logbook.plans.room_plan import RoomSump
from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.replay.entries import Reading, SeedSponge

_PRODUCTS: tuple[AmmoniaProduct, ...] = (
    PowderProduct(form="ammonium-chloride"),
    SolutionProduct(form="ammonia-solution", strength_percent_w_v=10),
    LabelProduct(form="label", amount=4, amount_unit="drops", water=1, water_unit="US gal", raises_ppm=2, basis="ion"),
)


class FormDefaults(Part):
    """One blank record of each thing a keeper adds."""

    tank: TankPlan = Field(default_factory=lambda: TankPlan(kind="tank-plan", tank=DEFAULT_TANK))
    sump: Sump = Field(default_factory=lambda: Sump(length_cm=60, width_cm=35, height_cm=40))
    room_sump: RoomSump = Field(
        default_factory=lambda: RoomSump(
            x_cm=0,
            y_cm=0,
            sump=Sump(length_cm=100, width_cm=45, height_cm=40, level_cm=20, chambers=["socks", "media", "return"]),
        ),
        description="On the floor under a rack",
    )
    kh_drops: KhTitrationQuestion = Field(default_factory=lambda: KhTitrationQuestion(drops_count=1))
    priorities: Priorities = Field(default_factory=Priorities)
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = Field(
        default_factory=lambda: FilterPlan(kind="filter-plan").price_per_kwh
    )
    drain: Drain = Field(default_factory=Drain)
    fitting: Fitting = Field(default_factory=lambda: Fitting(kind="elbow"))
    fittings: list[Fitting] = Field(
        default_factory=lambda: [
            Fitting(kind="strainer"),
            Fitting(kind="entrance"),
            Fitting(kind="u-bend", count=2),
            Fitting(kind="quick-valve"),
            Fitting(kind="spray-bar"),
            Fitting(kind="exit"),
        ],
        description="Of a hosed filter until they are counted",
    )
    layout: Layout = Field(default_factory=Layout)
    jug_l: Annotated[float, number("L", 0.05, 200, "A jug that most keepers have (common practice)")] = 2
    seed: SeedSponge = Field(default_factory=lambda: SeedSponge(kind="seed", name="Spare sponge"))
    air_supply: AirSupplyQuestion = Field(
        default_factory=lambda: AirSupplyQuestion(
            pump_l_min=5, pump_kpa=20, outlets=[AirOutlet(depth_cm=30, air_l_min=1)], main_bore_mm=8
        ),
        description="A small pump for one outlet (memory)",
    )
    animals: Animals = Field(default_factory=lambda: Animals(species_id="own", count=6))
    species: Species = Field(
        default_factory=lambda: Species(
            id="own",
            common_name="own",
            scientific_name="of your own",
            group="own",
            adult_length_cm=6,
            body_form="fusiform",
            ration_percent_day=2,
            protein_percent=40,
            temperature_low_c=22,
            temperature_high_c=26,
            ph_low=6.5,
            ph_high=7.5,
            swims="middle",
            current="moderate",
            needs_guard=False,
            sizing="community",
        ),
        description="An animal of one's own, to be typed over (memory: a middling community fish)",
    )
    reading: Reading = Field(default_factory=lambda: Reading(kind="reading"))
    products: list[AmmoniaProduct] = Field(default_factory=lambda: list(_PRODUCTS), description="One of each form")
    donor: SeedDonor = Field(default_factory=lambda: SeedDonor(food_g_day=0.3))
    resources: Resources = Field(default_factory=Resources)
    move: FilterMoveQuestion = Field(
        default_factory=lambda: FilterMoveQuestion(days_side_by_side=14, media_moved_share=0.5, minutes_out=20)
    )
    hospital: HospitalQuestion = Field(default_factory=HospitalQuestion)
    cloudy: CloudyWaterQuestion = Field(default_factory=CloudyWaterQuestion)
