"""All sources of the computations, each with a provenance.

``published`` (a work anyone can look up), ``common practice`` (a fact of the trade with no publication behind it) or
``memory`` (a value written down from memory and not yet confirmed in print).
"""

from dataclasses import dataclass
from typing import Literal

Provenance = Literal["published", "common practice", "memory", "exact", "your figure"]


@dataclass(frozen=True, slots=True)
class Source:
    """One source: a short key, its provenance, and where to find it."""

    key: str
    provenance: Provenance
    title: str


_ALL = (
    Source(
        "si",
        "exact",
        "Exact definitions: 1 US gal = 3.785411784 L, 1 imp gal = 4.54609 L, 1 in = 2.54 cm (NIST SP 811)",
    ),
    Source("geometry", "exact", "Plane and solid geometry"),
    Source("keeper", "your figure", "What you entered"),
    Source("label", "your figure", "The box label, as entered"),
    Source(
        "sharma2005",
        "published",
        "Sharma, Wu, Dalal (2005): The CIEDE2000 color-difference formula, Color Res. Appl. 30, doi:10.1002/col.20070",
    ),
    Source("practice", "common practice", "Common practice among keepers; no publication behind it"),
    Source("memory", "memory", "A working value from memory, open to correction"),
    Source(
        "densities",
        "memory",
        "Densities: glass 2.5, stone 2.6, mineral grains 2.65, waterlogged wood 1.1 kg/L; bed porosity about 0.40",
    ),
    Source(
        "froese2014",
        "published",
        "Froese, Thorson and Reyes 2014, J. Applied Ichthyology 30, doi:10.1111/jai.12299: length-weight by body shape"
        " (coefficients from memory)",
    ),
    Source(
        "timmons",
        "published",
        "Timmons and Ebeling, Recirculating Aquaculture: ammonia-N = feed × protein share × 0.092",
    ),
    Source(
        "magnus",
        "published",
        "Alduchov and Eskridge 1996, doi:10.1175/1520-0450(1996)035<0601:IMFAOS>2.0.CO;2: vapour pressure by Magnus'"
        " form (constants from memory)",
    ),
    Source("ashrae", "memory", "ASHRAE's form for evaporation from indoor pools, activity factor of a private one"),
    Source("bertalanffy", "memory", "von Bertalanffy growth, L = L∞ (1 − exp(−K t)); K by group of animal"),
    Source("ration", "common practice", "Daily ration as a share of body mass, by group of animal"),
    Source(
        "darcy",
        "published",
        "Darcy-Weisbach with laminar 64/Re and Colebrook-White 1939; cubic join between Re 2000 and 4000 after Dunlop"
        " (EPANET 2.2 manual)",
    ),
    Source("crane", "published", "Crane TP-410: resistance coefficients K of fittings (values rounded, from memory)"),
    Source(
        "forchheimer",
        "published",
        "Forchheimer's law for foams: h = (aV + bV²) × depth (coefficients by pore grade from memory)",
    ),
    Source("ergun1952", "published", "Ergun 1952, Fluid flow through packed columns, Chem. Eng. Progress 48"),
    Source(
        "dirtprior",
        "memory",
        "Prior for dirt: resistance grows with the solids caught, set so that a mid-sized canister loses about 20 % in"
        " service (common practice)",
    ),
    Source(
        "viscosity",
        "published",
        "Viscosity of water: Vogel equation; density: Kell's form, simplified (values within 0.5 % of IAPWS, 5 to"
        " 40 °C)",
    ),
    Source(
        "pchip", "published", "Fritsch and Carlson 1980, Monotone piecewise cubic interpolation, doi:10.1137/0717021"
    ),
    Source("pumpcurve", "common practice", "Two-number pump curve: H = Hmax (1 − (Q/Qmax)²)"),
    Source(
        "wurts1994",
        "memory",
        "Wurts, McNeill and Overhults 1994, performance and design of floating airlift pumps (76 mm, 50 cm: 66 L/min)",
    ),
    Source("nicklin1963", "published", "Nicklin 1963, The air-lift pump: theory and optimisation (drift flux)"),
    Source(
        "reinemann1990",
        "published",
        "Reinemann, Parlange and Timmons 1990: small-tube bubble speed with surface tension",
    ),
    Source("francis", "published", "Francis weir formula, Q = 1.84 L H^1.5 (any handbook of hydraulics)"),
    Source(
        "bernoulli", "published", "Bernoulli with losses, v = √(2 g h / (1 + ΣK + f L/D)) (any handbook of hydraulics)"
    ),
    Source(
        "albertson1950",
        "published",
        "Albertson, Dai, Jensen and Rouse 1950, Diffusion of submerged jets: U/U0 = 6.2 D/x",
    ),
    Source(
        "oca2007",
        "memory",
        "Oca and Masalo 2007, rotating-flow tanks: inlet impulse against Ct A V²/2; Ct 0.1 from memory",
    ),
    Source(
        "clarke1999",
        "published",
        "Clarke and Johnston 1999, doi:10.1046/j.1365-2656.1999.00337.x: ln R = 0.80 ln M − 5.43, resting oxygen of"
        " bony fish",
    ),
    Source("oconnor1958", "published", "O'Connor and Dobbins 1958: K = √(D U / H), oxygen through a moving surface"),
    Source("gameson1957", "memory", "Gameson's weir: r = 1 + 0.38 a b h (1 − 0.11 h)(1 + 0.046 T)"),
    Source(
        "emerson1975",
        "published",
        "Emerson, Russo, Lund and Thurston 1975, doi:10.1139/f75-274: pKa = 0.09018 + 2729.92/T",
    ),
    Source(
        "clegg1995",
        "published",
        "Clegg and Whitfield 1995, doi:10.1016/0016-7037(95)00135-2: ammonia dissociation in sea water (eq. 18, total"
        " scale; coefficients confirmed against PyCO2SYS)",
    ),
    Source(
        "epa2013",
        "published",
        "US EPA 2013, Aquatic life ambient water quality criteria for ammonia, freshwater (EPA 822-R-13-001)",
    ),
    Source(
        "epa1986",
        "published",
        "US EPA 1986, Ambient water quality criteria for dissolved oxygen (EPA 440/5-86-003); figures from memory",
    ),
    Source(
        "epa1993",
        "published",
        "US EPA 1993, Nitrogen Control manual: 7.14 mg CaCO3 of alkalinity and 4.57 mg O2 for each mg N nitrified",
    ),
    Source(
        "masses",
        "published",
        "Standard atomic masses (IUPAC): N 14.007, H 1.008, O 15.999, Cl 35.45, Na 22.990, C 12.011",
    ),
    Source("asm1", "published", "Henze et al. 1987, Activated Sludge Model No. 1 (the form of growth and decay)"),
    Source(
        "baranyi1994",
        "published",
        "Baranyi and Roberts 1994, A dynamic approach to predicting bacterial growth in food,"
        " doi:10.1016/0168-1605(94)90157-0 (the form of the lag)",
    ),
    Source(
        "anthonisen1976",
        "published",
        "Anthonisen et al. 1976: free ammonia holds nitrite oxidisers back from about 0.1 to 1 mg/L",
    ),
    Source(
        "cycleprior",
        "memory",
        "Prior of the cycle model, tuned until an unseeded tank at 25 to 27 °C passes in 4 to 6 weeks (common"
        " practice)",
    ),
    Source(
        "carbonate", "published", "Stumm and Morgan, Aquatic Chemistry: pH = pK1 + log10(HCO3⁻/CO2), pK1 6.35 at 25 °C"
    ),
    Source(
        "benson1984",
        "published",
        "Benson and Krause 1984, Limnology and Oceanography 29, doi:10.4319/lo.1984.29.3.0620: oxygen at saturation, as"
        " in APHA 4500-O",
    ),
    Source("eos80", "published", "EOS-80, UNESCO technical papers in marine science 36 (1981): density of sea water"),
    Source(
        "pss78", "published", "PSS-78, UNESCO technical papers in marine science 37 (1981): conductivity of sea water"
    ),
    Source("atmosphere", "published", "ISO 2533 standard atmosphere: pressure with height"),
    Source(
        "nitrite",
        "common practice",
        "Nitrite over 0.5 ppm is acted on at once; chloride blocks its uptake at the gills",
    ),
    Source("student", "published", "Student's t, two-sided 95 % (any statistical table)"),
    Source("arithmetic", "exact", "Arithmetic"),
)

SOURCES: dict[str, Source] = {source.key: source for source in _ALL}
