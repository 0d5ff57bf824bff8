/** The section with the filters looked at: flow at the outlet, and what the hoses cost. */
import { useCompute } from "../../api/compute";
import type { FilterView, PlumbingHeads, Together } from "../../api/schemas";
import { bare, show } from "../../quantity/format";
import type { SectionLabel } from "../../section/Labels";
import { Section } from "../../section/Section";
import type { hanging } from "../../shared/installedFilters";
import type { StageProps } from "../../shared/stageProps";

export function FilterDrawing({
  logbook,
  tables,
  view,
  installed,
}: StageProps & { view?: FilterView; installed: ReturnType<typeof hanging> }) {
  const { tank, stock } = logbook.plans;
  const shared = {
    plan: tank,
    volume: view?.volume,
    animals: stock.animals,
    species: [...tables.species, ...stock.own_species],
  };
  const shown = view?.shown;
  const alone = shown?.filters.length === 1 ? shown.filters[0]?.installed.flow.path : null;
  const asked = useCompute("plumbing-heads", alone ?? null);
  // The range of the filter looked at before would stand beside this one's flow.
  const heads = alone && !asked.isPlaceholderData ? asked.data : undefined;
  if (!shown)
    return (
      <Section {...shared} filters={installed} labels={[]} caption="The tank, without a filter that fits." />
    );
  return (
    <Section
      {...shared}
      filters={shown.filters.map((f) => ({
        key: f.installed.key,
        filter: f.installed.filter,
        fitting: f.installed.plan,
      }))}
      labels={labelsOf(shown, heads)}
      currents={shown.currents}
      caption={`${shown.name} on this tank: ${show(shown.delivered_lph, "L/h")} delivered.`}
    />
  );
}

/** heads: of the one filter's plumbing, where it has a pump. */
function labelsOf(shown: Together, heads?: PlumbingHeads): SectionLabel[] {
  const many = shown.filters.length > 1;
  const box = bare(shown.box_lph, "L/h");
  const labels: SectionLabel[] = [
    {
      at: "outlet",
      lines: [
        `${show(shown.delivered_lph, "L/h")} ${many ? "come out together" : "comes out"}`,
        heads
          ? `${bare(heads.clean.low_lph, "L/h")} to ${bare(heads.clean.high_lph, "L/h")} (box ${box})`
          : `${many ? "the boxes say" : "the box says"} ${box}`,
      ],
    },
  ];
  const hose = shown.filters[0]?.installed.flow.pumped?.head_budget.find((p) => p.role === "hose");
  if (!many && shown.filters[0]?.installed.plan.runs.some((r) => r.role === "return-hose") && hose)
    labels.push({
      at: "hose",
      lines: [
        `${show(shown.filters[0].installed.plan.hose_m, "m", 1)} of hose`,
        `costs ${show(hose.head_m, "m", 2)} head`,
      ],
    });
  return labels;
}
