/** A new entry: a change, a dose, baking soda, media, power, animals, a note; now or at another time. */
import { range } from "../api/range";
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useWrite } from "../api/entries";
import type { Body, LogbookState, Tables } from "../api/schemas";
import { Button, PickOne, ProblemNote, Select, TextField, YesNo } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { When } from "./When";
import { Bar } from "../kit";
import { hanging } from "./installedFilters";
import { KEPT_HERE } from "./keptHere";

type Doing = "note" | "water-change" | "dose" | "kh" | "media" | "power" | "growth" | "animals";

/** Typed values for every kind of entry, so that switching kinds loses nothing. */
interface Typed {
  text: string;
  /** Litres, ppm or dKH, by kind. */
  figure: number | null;
  media: MediaWhat;
  share: number;
  treated: boolean;
  running: "off" | "on";
  species: string;
  count: number;
  which: string;
}

const MEDIA: readonly (readonly [MediaWhat, string])[] = [
  ["rinsed", "rinsed in tank water"],
  ["rinsed-tap", "rinsed at the tap"],
  ["replaced", "replaced by new"],
  ["dried", "left dry"],
  ["seed-added", "seeded media put in"],
  ["new-filter", "a new filter added"],
];
type MediaWhat = Extract<Body, { kind: "media-work" }>["what"];

interface NewEntryProps {
  tankId: number;
  netL?: number;
  logbook: LogbookState;
  tables: Tables;
}

export function NewEntry({ tankId, netL, logbook, tables }: NewEntryProps) {
  const animals = logbook.plans.stock.animals.map((a): [string, string] => [
    a.species_id,
    tables.species.find((s) => s.id === a.species_id)?.common_name ?? a.species_id,
  ]);
  const [doing, setDoing] = useState<Doing>("note");
  const [typed, setTyped] = useState<Typed>({
    text: "",
    figure: null,
    media: "rinsed",
    share: 50,
    treated: true,
    running: "off",
    species: animals[0]?.[0] ?? "",
    count: 1,
    which: "",
  });
  const [at, setAt] = useState<string | null>(null);
  const filters = hanging(logbook.plans.filter);
  const write = useWrite(tankId);
  const set = (change: Partial<Typed>) => {
    setTyped((now) => ({ ...now, ...change }));
  };
  const body = BODIES[doing](typed, {
    netL,
    nitrogen: tables.nitrogen_share.ammonia,
    filterKey: filters.some((f) => f.key === typed.which) ? typed.which : null,
  });
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (!body) return;
    write.mutate(
      { body, at: at ?? undefined },
      {
        onSuccess: () => {
          set({ text: "", figure: null });
          setAt(null);
        },
      },
    );
  };
  return (
    <form onSubmit={submit} aria-label="Write in the logbook">
      <PickOne
        label="Write down"
        value={doing}
        onChange={(next) => {
          setDoing(next);
          set({ figure: null });
        }}
        options={[
          ["note", "A note"],
          ["water-change", "A water change"],
          ["dose", "Ammonia"],
          ["kh", "Bicarbonate"],
          ["media", "Media"],
          ["power", "Filter off or on"],
          ["growth", "New growth"],
          ...(animals.length ? ([["animals", "Animals"]] as const) : []),
        ]}
      />
      <Bar style={{ alignItems: "end" }}>
        <KindFields doing={doing} typed={typed} set={set} filters={filters} animals={animals} />
        <Button type="submit" isDisabled={!body || write.isPending}>
          Write it
        </Button>
        <When at={at} onChange={setAt} />
      </Bar>
      {write.data === "held" && <p role="status">{KEPT_HERE}</p>}
      <ProblemNote problem={write.error} />
    </form>
  );
}

interface Known {
  netL?: number;
  /** mg of nitrogen in a ppm of ammonia. */
  nitrogen: number;
  filterKey: string | null;
}

/** The entry of each kind from the typed values; null while something is missing. */
const BODIES: Record<Doing, (typed: Typed, known: Known) => Body | null> = {
  note: ({ text }) => (text.trim() ? { kind: "note", text } : null),
  "water-change": ({ figure: litres, treated }, { netL }) =>
    litres && netL ? { kind: "water-change", share: Math.min(litres / netL, 1), litres, treated } : null,
  dose: ({ figure: ppm }, { nitrogen }) => (ppm ? { kind: "dose", raise_mg_n_l: ppm * nitrogen } : null),
  kh: ({ figure: dkh }) => (dkh ? { kind: "alkalinity", raise_dkh: dkh } : null),
  media: ({ media, share, text }, { filterKey }) => ({
    kind: "media-work",
    what: media,
    share: share / 100,
    text,
    filter_key: filterKey,
  }),
  power: ({ running }, { filterKey }) => ({
    kind: "outage",
    running: running === "on",
    filter_key: filterKey,
  }),
  growth: () => ({ kind: "plant-growth" }),
  animals: ({ species, count }) =>
    species && count !== 0 ? { kind: "stocking", species_id: species, count } : null,
};

const WORDED: Partial<Record<Doing, string>> = {
  note: "What happened?",
  media: "In words, if you like",
};

interface KindProps {
  doing: Doing;
  typed: Typed;
  set: (change: Partial<Typed>) => void;
  filters: { key: string; filter: { name: string } }[];
  animals: [string, string][];
}

function KindFields({ doing, typed, set, filters, animals }: KindProps) {
  const worded = WORDED[doing];
  return (
    <>
      {filters.length > 1 && (doing === "media" || doing === "power") && (
        <Select
          label="Of which filter"
          value={filters.some((f) => f.key === typed.which) ? typed.which : ""}
          onChange={(which) => {
            set({ which });
          }}
          options={[["", "all of them"], ...filters.map((f): [string, string] => [f.key, f.filter.name])]}
        />
      )}
      {doing === "media" && <MediaFields typed={typed} set={set} />}
      {doing === "power" && (
        <PickOne
          label="The filter is now"
          value={typed.running}
          onChange={(running) => {
            set({ running });
          }}
          options={[
            ["off", "off"],
            ["on", "running"],
          ]}
        />
      )}
      {doing === "animals" && <AnimalFields typed={typed} set={set} animals={animals} />}
      {worded && (
        <Grow>
          <TextField
            label={worded}
            value={typed.text}
            onChange={(text) => {
              set({ text });
            }}
          />
        </Grow>
      )}
      <FigureField key={doing} doing={doing} typed={typed} set={set} />
      {doing === "water-change" && (
        <YesNo
          label="Treated for chlorine"
          value={typed.treated}
          onChange={(treated) => {
            set({ treated });
          }}
        />
      )}
    </>
  );
}

/** The one figure of a change, a dose or baking soda. */
function FigureField({ doing, typed, set }: Pick<KindProps, "doing" | "typed" | "set">) {
  const field = {
    value: typed.figure,
    min: 0,
    onChange: (figure: number) => {
      set({ figure });
    },
    onClear: () => {
      set({ figure: null });
    },
  };
  if (doing !== "water-change" && doing !== "dose" && doing !== "kh") return null;
  return (
    <Grow>
      {doing === "water-change" && <QuantityField label="Water changed" unit="L" {...field} />}
      {doing === "dose" && <NumberBox label="Raised by, ppm of ammonia" {...field} />}
      {doing === "kh" && <QuantityField label="KH raised by" unit="dKH" {...field} />}
    </Grow>
  );
}

function MediaFields({ typed, set }: Pick<KindProps, "typed" | "set">) {
  return (
    <>
      <Select
        label="Media were"
        value={typed.media}
        onChange={(media) => {
          set({ media });
        }}
        options={MEDIA}
      />
      <Narrow>
        <NumberBox
          label="How much, %"
          value={typed.share}
          {...range("MediaWork.share", 100)}
          onChange={(share) => {
            set({ share });
          }}
        />
      </Narrow>
    </>
  );
}

function AnimalFields({ typed, set, animals }: Pick<KindProps, "typed" | "set" | "animals">) {
  return (
    <>
      <Select
        label="Which"
        value={typed.species}
        onChange={(species) => {
          set({ species });
        }}
        options={animals}
      />
      <Narrow>
        <NumberBox
          label="How many, lost under 0"
          value={typed.count}
          {...range("Stocking.count")}
          onChange={(count) => {
            set({ count });
          }}
        />
      </Narrow>
    </>
  );
}

const Narrow = styled.div`
  width: 150px;
`;
const Grow = styled.div`
  flex: 1 1 220px;
`;
