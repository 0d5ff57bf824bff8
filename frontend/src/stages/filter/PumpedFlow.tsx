/** Where a pumped filter's flow goes: its curves, heads along the way, and what the figures are worth. */
import { standing, useCompute } from "../../api/compute";
import type { InstalledView, OperatingPoint as Pumped } from "../../api/schemas";
import { HeadBudget } from "../../charts/HeadBudget";
import { HeadLine } from "../../charts/HeadLine";
import { Interval } from "../../charts/Interval";
import { OperatingPoint } from "../../charts/OperatingPoint";

interface Props {
  flow: InstalledView["installed"]["flow"];
  pumped: Pumped;
}

export function PumpedFlow({ flow, pumped }: Props) {
  const heads = standing(useCompute("plumbing-heads", flow.path ?? null));
  return (
    <>
      <OperatingPoint answer={pumped} heads={heads} />
      {heads && (
        <p>
          {heads.verdict} {heads.why}
        </p>
      )}
      <HeadBudget answer={pumped} />
      <Interval answer={pumped} serviceDay={flow.service_days} />
      {heads && <HeadLine heads={heads} />}
    </>
  );
}
