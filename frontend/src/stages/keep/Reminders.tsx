/** Reminders: plugs after work in the tank, and the review of a change. */
import { useState } from "react";
import { styled } from "styled-components";
import { useWrite } from "../../api/entries";
import type { Body, KeepView } from "../../api/schemas";
import { Button, PickOne, ProblemNote, TextField } from "../../kit";
import { show } from "../../quantity/format";
import { LOCALE } from "../../quantity/locale";

type Asked = NonNullable<KeepView["plugs"]>;
type Changed = KeepView["reviews"][number];
type Said = Extract<Body, { kind: "review" }>;

export function Plugs({ tankId, asked }: { tankId: number; asked: Asked }) {
  const write = useWrite(tankId);
  const said = (body: Body) => {
    write.mutate({ body });
  };
  const at = new Date(asked.at).toLocaleString(LOCALE, {
    weekday: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
  return (
    <Bar aria-label="Plugs">
      <p>
        After {asked.after} ({at}): is everything plugged in, and does {asked.filters.join(" and ")} move
        water?
      </p>
      <div>
        <Button
          $quiet
          isDisabled={write.isPending}
          onPress={() => {
            said({ kind: "care", what: "plugs", part: "", filter_key: null });
          }}
        >
          Yes, I saw it run
        </Button>
        <Button
          $quiet
          isDisabled={write.isPending}
          onPress={() => {
            said({ kind: "outage", running: false, filter_key: null });
          }}
        >
          It stands still
        </Button>
      </div>
      <ProblemNote problem={write.error} />
    </Bar>
  );
}

/** Changes due for review, and earlier reviews. */
export function Reviews({ tankId, changes }: { tankId: number; changes: Changed[] }) {
  const open = changes.filter((c) => !c.said);
  const judged = changes.filter((c) => c.said);
  return (
    <>
      {open.map((c) => (
        <Judge key={c.of} tankId={tankId} change={c} />
      ))}
      {judged.length > 0 && (
        <details>
          <summary>Changes judged before</summary>
          <ul>
            {judged.map((c) => (
              <li key={c.of}>
                <b>{c.title}</b>, {new Date(c.at).toLocaleDateString(LOCALE)}:{" "}
                {c.said?.worth ? "worth it" : "not worth it"}
                {c.said?.text && `. ${c.said.text}`}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

const ASKED: readonly (readonly ["flow" | "clarity" | "noise", string])[] = [
  ["flow", "Flow"],
  ["clarity", "Clearness"],
  ["noise", "Noise"],
];

function Judge({ tankId, change }: { tankId: number; change: Changed }) {
  const [said, setSaid] = useState<Omit<Said, "worth">>({
    kind: "review",
    of: change.of,
    flow: null,
    clarity: null,
    noise: null,
    text: "",
  });
  const write = useWrite(tankId);
  const before = change.flow_before_lph;
  const after = change.flow_after_lph;
  return (
    <Bar aria-label={`${change.title}: was it worth it?`}>
      <p>
        <b>{change.title}</b> on {new Date(change.at).toLocaleDateString(LOCALE)}: was it worth it?{" "}
        {before != null &&
          after != null &&
          `Timed ${show(before, "L/h")} before, ${show(after, "L/h")} since. `}
        {change.trace
          ? "A trace of poison was read in the month after."
          : "No trace of poison was read in the month after."}
      </p>
      <div>
        {ASKED.map(([what, label]) => (
          <PickOne
            key={what}
            label={label}
            value={said[what] ?? ""}
            onChange={(next) => {
              setSaid((now) => ({ ...now, [what]: next === "" ? null : next }));
            }}
            options={[
              ["better", "better"],
              ["same", "the same"],
              ["worse", "worse"],
            ]}
          />
        ))}
      </div>
      <div>
        <TextField
          label="In words, if you like"
          value={said.text ?? ""}
          onChange={(text) => {
            setSaid((now) => ({ ...now, text }));
          }}
        />
        {[true, false].map((worth) => (
          <Button
            key={String(worth)}
            $quiet
            isDisabled={write.isPending}
            onPress={() => {
              write.mutate({ body: { ...said, worth } });
            }}
          >
            {worth ? "Worth it" : "Not worth it"}
          </Button>
        ))}
      </div>
      <ProblemNote problem={write.error} />
    </Bar>
  );
}

const Bar = styled.section`
  border-left: 4px solid var(--reed);
  background: var(--silt);
  padding: 8px 14px;
  display: grid;
  gap: 8px;
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: end;
  }
`;
