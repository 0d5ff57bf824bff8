/** The steps of the keeper's own kit, typed in by the keeper. */
import { range } from "../../api/range";
import { useState } from "react";
import { useDraft } from "../../api/drafts";
import type { KitPlan, KitSteps, LogbookState } from "../../api/schemas";
import { FieldBox, Fields, Lead, PickOne, TextField } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { SaveBar } from "../../shared/SaveBar";

const ROWS = [
  ["ammonia_ppm", "Ammonia steps"],
  ["nitrite_ppm", "Nitrite steps"],
  ["nitrate_ppm", "Nitrate steps"],
] as const;

export function KitForm({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const draft = useDraft<KitPlan>(tankId, "kit", logbook.plans.kit, logbook.kit_plan?.id ?? null);
  const kit = draft.value.kit;
  const set = (change: Partial<KitSteps>) => {
    draft.set((now) => ({ ...now, kit: { ...now.kit, ...change } }));
  };
  return (
    <section aria-label="Your kit">
      <h2>Your kit</h2>
      <Lead>
        The numbers printed on it, lowest first. The forecast takes a colour for what lies between it and its
        neighbours, and the last step for “this or more”.
      </Lead>
      <Fields $min={200}>
        {ROWS.map(([field, label]) => (
          <Steps
            key={field + String(draft.basedOn)}
            label={label}
            value={kit[field]}
            onChange={(steps) => {
              set({ [field]: steps });
            }}
          />
        ))}
        <NumberBox
          label="KH, dKH in one drop"
          value={kit.kh_step_dkh}
          {...range("KitSteps.kh_step_dkh")}
          onChange={(kh_step_dkh) => {
            set({ kh_step_dkh });
          }}
        />
        <FieldBox>
          <label htmlFor="kit-expires">Runs out on</label>
          <input
            id="kit-expires"
            type="date"
            value={draft.value.expires_on ?? ""}
            onChange={(e) => {
              const day = e.target.value;
              draft.set((now) => ({ ...now, expires_on: day || null }));
            }}
          />
        </FieldBox>
      </Fields>
      <PickOne
        label="It reads ppm as"
        value={kit.basis}
        onChange={(basis) => {
          set({ basis });
        }}
        options={[
          ["ion", "the ion (most kits)"],
          ["N", "nitrogen (N)"],
        ]}
      />
      <SaveBar
        tankId={tankId}
        draft={draft}
        words="Save the kit"
        describe={(b) => `ammonia ${b.kit.ammonia_ppm.join(", ")}; nitrite ${b.kit.nitrite_ppm.join(", ")}`}
      />
    </section>
  );
}

function Steps({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number[];
  onChange: (v: number[]) => void;
}) {
  const [text, setText] = useState(value.join("  "));
  const parts = text.split(/[\s;]+/).filter(Boolean);
  const figures = parts.map((p) => Number(p.replace(",", ".")));
  const good =
    figures.length >= 2 && figures.length <= 14 && figures.every((f) => Number.isFinite(f) && f >= 0);
  return (
    <TextField
      label={label}
      value={text}
      inputMode="text"
      error={good || !text ? null : "Give 2 to 14 figures with spaces between: 0 0.25 0.5 1 2"}
      onChange={(next) => {
        setText(next);
        const read = next
          .split(/[\s;]+/)
          .filter(Boolean)
          .map((p) => Number(p.replace(",", ".")));
        if (read.length >= 2 && read.length <= 14 && read.every((f) => Number.isFinite(f) && f >= 0))
          onChange(read.sort((a, b) => a - b));
      }}
    />
  );
}
