"""Stoichiometry of ammonia and alkalinity: what nitrification uses and what ammonia as a base brings."""

ALKALINITY_PER_N = 7.14
"""mg CaCO3 of alkalinity used for each mg N nitrified (US EPA 1993)."""


BASE_PER_N = 50.043 / 14.007
"""mg CaCO3 of alkalinity that comes with each mg N put in as NH3 rather than as a salt: ammonia solution, rotting food,
what animals give off. One equivalent a mole; plants take it away again with ammonium and give it back with nitrate."""


N_IN_NH4CL = 14.007 / (14.007 + 4 * 1.008 + 35.45)
