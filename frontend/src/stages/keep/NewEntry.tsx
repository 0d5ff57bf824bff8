/** Something done, written down: a change, a dose, bicarbonate, media, power, animals, a note; now or at another time. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useWrite } from "../../api/hooks";
import type { Body, LogbookState, Tables } from "../../api/schemas";
import { Button, NumberBox, PickOne, ProblemNote, Select, TextField, YesNo } from "../../kit";
import { When } from "../cycle/When";
import { Bar, hanging } from "../shared";

type Doing = "note" | "water-change" | "dose" | "kh" | "media" | "power" | "growth" | "animals";

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
  const [text, setText] = useState("");
  const [media, setMedia] = useState<MediaWhat>("rinsed");
  const [share, setShare] = useState(50);
  const [treated, setTreated] = useState(true);
  const [running, setRunning] = useState<"off" | "on">("off");
  const [species, setSpecies] = useState(animals[0]?.[0] ?? "");
  const [count, setCount] = useState(1);
  const [at, setAt] = useState<string | null>(null);
  const filters = hanging(logbook.plans.filter);
  const [which, setWhich] = useState("");
  const filterKey = filters.some((f) => f.key === which) ? which : null;
  const write = useWrite(tankId);
  const litres = Number(text.replace(",", "."));
  const ready =
    doing === "note"
      ? text.trim() !== ""
      : doing === "water-change"
        ? litres > 0 && netL !== undefined
        : doing === "dose" || doing === "kh"
          ? litres > 0
          : doing === "animals"
            ? species !== "" && count !== 0
            : true;
  const bodyOf = (): Body | null => {
    if (doing === "water-change")
      return netL ? { kind: "water-change", share: Math.min(litres / netL, 1), litres, treated } : null;
    if (doing === "media")
      return { kind: "media-work", what: media, share: share / 100, text, filter_key: filterKey };
    if (doing === "dose") return { kind: "dose", raise_mg_n_l: litres * tables.nitrogen_share.ammonia };
    if (doing === "kh") return { kind: "alkalinity", raise_dkh: litres };
    if (doing === "growth") return { kind: "plant-growth" };
    if (doing === "power") return { kind: "outage", running: running === "on", filter_key: filterKey };
    if (doing === "animals") return { kind: "stocking", species_id: species, count };
    return { kind: "note", text };
  };
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    const body = bodyOf();
    if (!ready || !body) return;
    write.mutate(
      { body, at: at ?? undefined },
      {
        onSuccess: () => {
          setText("");
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
        onChange={setDoing}
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
        {filters.length > 1 && (doing === "media" || doing === "power") && (
          <Select
            label="Of which filter"
            value={filterKey ?? ""}
            onChange={setWhich}
            options={[["", "all of them"], ...filters.map((f): [string, string] => [f.key, f.filter.name])]}
          />
        )}
        {doing === "media" && (
          <>
            <Select label="Media were" value={media} onChange={setMedia} options={MEDIA} />
            <Narrow>
              <NumberBox label="How much, %" value={share} min={1} max={100} onChange={setShare} />
            </Narrow>
          </>
        )}
        {doing === "power" && (
          <PickOne
            label="The filter is now"
            value={running}
            onChange={setRunning}
            options={[
              ["off", "off"],
              ["on", "running"],
            ]}
          />
        )}
        {doing === "animals" && (
          <>
            <Select label="Which" value={species} onChange={setSpecies} options={animals} />
            <Narrow>
              <NumberBox
                label="How many, lost under 0"
                value={count}
                min={-2000}
                max={2000}
                onChange={setCount}
              />
            </Narrow>
          </>
        )}
        {ASKED[doing] && (
          <Grow>
            <TextField
              label={ASKED[doing] ?? ""}
              value={text}
              onChange={setText}
              inputMode={doing === "note" || doing === "media" ? "text" : "decimal"}
            />
          </Grow>
        )}
        {doing === "water-change" && (
          <YesNo label="Treated for chlorine" value={treated} onChange={setTreated} />
        )}
        <Button type="submit" isDisabled={!ready || write.isPending}>
          Write it
        </Button>
        <When at={at} onChange={setAt} />
      </Bar>
      {write.data === "held" && <p role="status">Kept on this device; it will be sent later.</p>}
      <ProblemNote problem={write.error} />
    </form>
  );
}

const ASKED: Partial<Record<Doing, string>> = {
  note: "What happened?",
  "water-change": "Litres changed",
  dose: "Raised by, ppm of ammonia",
  kh: "KH raised by, dKH",
  media: "In words, if you like",
};

const Narrow = styled.div`
  width: 150px;
`;
const Grow = styled.div`
  flex: 1 1 220px;
`;
