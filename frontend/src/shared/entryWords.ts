/** A logbook entry in a few words. */
import type { Entry, FittedFilter, Tables } from "../api/schemas";
import { WATER_PARAMETERS } from "../api/waterParameters";
import { fixed, money, short, show, sizeWords, withMark } from "../quantity/format";
import { SITUATIONS } from "./situations";
import { LOCALE } from "../quantity/locale";
import { parameterWords } from "../quantity/waterParameters";

type Cared = Extract<Entry["body"], { kind: "care" }>["what"];

const CARED: Record<Exclude<Cared, "part">, string> = {
  guard: "Guard sponge rinsed",
  carbon: "Carbon changed",
  plugs: "Seen running again",
  socks: "Socks washed",
  "top-up": "Topped up",
  "feed-young": "The young fed",
};

function lph(body: { container_l: number; times_s: number[] }): number {
  return body.times_s.reduce((sum, t) => sum + (body.container_l * 3600) / t, 0) / body.times_s.length;
}

function filtersInWords(filters: FittedFilter[]): string {
  const names = filters.filter((f) => !f.retired).map((f) => f.filter.name);
  if (names.length) return `On the tank: ${names.join(" and ")}`;
  return filters.length ? "Filter taken off" : "Filter: plumbing and priorities";
}

type Named = (speciesId: string) => string;
type Words = {
  [Kind in Entry["body"]["kind"]]: (
    body: Extract<Entry["body"], { kind: Kind }>,
    name: Named,
    tables: Tables,
  ) => string;
};

const some = (...parts: (string | null)[]) => parts.filter((p) => p !== null);
type TestBody = Extract<Entry["body"], { kind: "reading" }>;

/** A figure read against colours: alone, with "+" where it is off the scale, or its range. */
export function colourFigure(body: TestBody, what: TestBody["off_scale"][number]): string | null {
  const span = body.between.find((one) => one.what === what);
  const value = body[`${what}_ppm`];
  if (value == null) return null;
  return span
    ? `${short(span.low_ppm, 3)}–${short(span.high_ppm, 3)}`
    : `${short(value, 3)}${body.off_scale.includes(what) ? "+" : ""}`;
}

export function testInWords(body: TestBody): string {
  const colour = (what: TestBody["off_scale"][number]) => {
    const figure = colourFigure(body, what);
    return figure === null ? null : `${what} ${figure}`;
  };
  const figures = some(
    ...WATER_PARAMETERS.map((one) => (one.ion ? colour(one.key) : parameterWords(one, body[one.field]))),
  );
  return `Test: ${figures.join(", ")}${body.basis === "N" ? " (as N)" : ""}${body.other_kit ? ", with another kit" : ""}`;
}

function moveInWords({ phase, to }: Extract<Entry["body"], { kind: "seed-move" }>): string {
  if (phase === "out") return "A spare lifted out";
  if (phase === "back") return "A spare put back to seed";
  return to ? `A spare put in: ${to}` : "A spare put in";
}

const FOUND_BY = { transit: "a float", meter: "the meter", "level-drop": "the level in the box" } as const;

export const SIGNS = {
  gasping: "gasps at the surface",
  "red-gills": "red or brown gills",
  flicking: "rubs on things",
  spots: "white or golden spots",
  fuzz: "cotton-like tufts",
  wounds: "torn fins or sores",
  swollen: "swollen, scales stand out",
  thin: "thin or hollow",
  "not-eating": "does not eat",
  drifting: "drifts, no balance",
  hiding: "hides, fins clamped",
} as const;

/** Month heading of a time. */
export function monthOf(at: string): string {
  return new Date(at).toLocaleDateString(LOCALE, { month: "long", year: "numeric" });
}

function stockingWord(count: number, moved: boolean): string {
  if (moved) return count > 0 ? "Moved in" : "Moved out";
  return count > 0 ? "Put in" : "Lost";
}

const WORDS: Words = {
  "tank-plan": ({ tank }) => `Tank: ${sizeWords(tank)}`,
  "stock-plan": (body, name) =>
    `Animals planned: ${body.animals.map((a) => `${a.count} ${name(a.species_id)}`).join(", ") || "none"}`,
  "filter-plan": (body) => filtersInWords(body.filters),
  "cycle-plan": (body, _, { methods }) =>
    `Cycle planned: ${methods.find((m) => m.method === body.method)?.inside ?? body.method}`,
  "kit-plan": () => "The steps of the kit",
  conditioner: () => "Conditioner to the whole tank",
  "plant-growth": () => "New growth seen on the plants",
  purchase: (body) => `Bought: ${body.item}, ${money(body.price)}`,
  seed: (body) => `Spare put in to seed: ${body.name}`,
  "seed-move": moveInWords,
  "step-done": (body) =>
    `Step ${body.done ? "done" : "unticked"}: ${body.step_id.replace(/^[a-z]+-/, "").replaceAll("-", " ")}${body.note ? ` (${body.note})` : ""}`,
  "flow-test": (body) => `Flow timed: ${show(lph(body), "L/h")}`,
  "timed-flow": (body) => `Flow found by ${FOUND_BY[body.method]}: ${show(body.measured_lph, "L/h")}`,
  "fit-plan": () => "Where the parts go",
  reading: testInWords,
  dose: (body) =>
    `Ammonia dosed: ${body.amount == null ? "" : `${withMark(String(Number(body.amount.toPrecision(3))))} ${body.amount_unit ?? ""}, `}${fixed(body.raise_mg_n_l, 2)} mg N/L`,
  alkalinity: (body) =>
    `Bicarbonate added: ${body.grams == null ? "" : `${body.grams.toFixed(0)} g, `}KH up ${fixed(body.raise_dkh, 1)} dKH`,
  "water-change": (body) =>
    `Water changed: ${(body.share * 100).toFixed(0)} %${body.treated ? "" : ", untreated"}`,
  outage: (body) => (body.running ? "Filter running again" : "Filter off"),
  "media-work": (body) => `Media ${body.what.replace("-", " ")}${body.text ? `: ${body.text}` : ""}`,
  stocking: (body, name) =>
    `${stockingWord(body.count, body.moved)}: ${Math.abs(body.count)} ${name(body.species_id)}`,
  quarantine: (body) => (body.days ? `Quarantine of ${body.days} days begins` : "Quarantine ended"),
  care: (body) => (body.what === "part" ? `New part: ${body.part || "not named"}` : CARED[body.what]),
  ailing: (body, name) =>
    body.signs.length === 0
      ? "All are well again"
      : `Unwell: ${body.count} ${body.species_id ? name(body.species_id) : ""} ${body.signs.map((s) => SIGNS[s]).join(", ")}${body.text ? ` (${body.text})` : ""}`,
  "air-seen": (body) =>
    body.bubbles === "steady"
      ? "Seen bubbling steadily"
      : body.bubbles === "weak"
        ? "Bubbles weakly"
        : "No bubbles",
  review: (body) =>
    `A change judged: ${body.worth ? "worth it" : "not worth it"}${body.text ? ` (${body.text})` : ""}`,
  away: (body) =>
    `Away from ${new Date(body.from_at).toLocaleDateString(LOCALE)} to ${new Date(body.until_at).toLocaleDateString(LOCALE)}`,
  "on-round": (body) => {
    const walked = body.tasks.filter((task) => task.days.length > 0).length;
    return body.tasks.length === 0
      ? "The room's round was given back"
      : `On the room's round this week: ${walked} to do, ${body.tasks.length - walked} left for next week`;
  },
  brood: (body, name) => {
    const many = body.count == null ? "" : `${body.count} `;
    const said: Record<typeof body.what, string> = {
      pair: "A pair together",
      spawned: "Eggs laid",
      hatched: "Young hatched",
      "free-swimming": "Young swim freely",
      counted: `${many}young counted`,
      came: `${many}young came`,
      moved: `${many || "All "}young moved on`,
      sold: `${many || "All "}young sold`,
      lost: `${many || "All "}young lost`,
      ended: "The brood is over",
    };
    return `${said[body.what]}: ${name(body.species_id)}`;
  },
  note: (body) => body.text,
  situation: (body) =>
    `Where it stands: ${SITUATIONS[body.stands].words}${body.since ? `, since ${new Date(body.since).toLocaleDateString(LOCALE)}` : ""}`,
  withdrawal: () => "An entry was taken back",
};

/** body: the entry's; tables: for names of animals and methods. */
export function words(body: Entry["body"], tables: Tables): string {
  const name = (id: string) => tables.species.find((s) => s.id === id)?.common_name ?? id;
  // Each row takes only its own kind, which the table's type guarantees but a lookup cannot express.
  const say = WORDS[body.kind] as (body: Entry["body"], name: Named, tables: Tables) => string;
  return say(body, name, tables);
}
