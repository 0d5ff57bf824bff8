/** Settings of the chosen tanks: weekday of changes, the room's air, the price of a kWh, priorities. */
import { range } from "../api/range";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useBlanks } from "../api/tables";
import { newKey } from "../api/outbox";
import type { FilterPlan } from "../api/schemas";
import { Button, ProblemNote, Select } from "../kit";
import { QuantityField } from "../kit/quantities";
import { WEEKDAYS } from "../quantity/weekdays";
import { PriorityForm } from "../shared/PriorityForm";

type Wanted = Partial<Pick<FilterPlan, "priorities" | "price_per_kwh">>;

export function Alike({ chosen }: { chosen: number[] }) {
  const queries = useQueryClient();
  const form_defaults = useBlanks();
  const [weekday, setWeekday] = useState("as");
  const [roomC, setRoomC] = useState<number | null>(null);
  const [wanted, setWanted] = useState<Wanted>({});
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const nothing = weekday === "as" && roomC === null && Object.keys(wanted).length === 0;
  const set = async () => {
    setProblem(null);
    setSaid("");
    try {
      const made = await ask(
        client.POST("/api/settings/many", {
          body: {
            key: newKey(),
            at: new Date().toISOString(),
            tank_ids: chosen,
            ...wanted,
            change_weekday: weekday === "as" ? null : Number(weekday),
            room_c: roomC,
          },
        }),
      );
      await queries.invalidateQueries();
      setSaid(
        made.entries.length
          ? "Set, and written in each logbook; tanks that were never measured keep no day."
          : "They are set so already.",
      );
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <details>
      <summary>Settings, all alike</summary>
      <Box>
        <Select
          label="Water is changed on"
          value={weekday}
          onChange={setWeekday}
          options={[["as", "as it is"], ...WEEKDAYS]}
        />
        <QuantityField
          label="The room in the cold season"
          unit="°C"
          value={roomC}
          {...range("Surroundings.room_c")}
          onChange={setRoomC}
          onClear={() => {
            setRoomC(null);
          }}
        />
      </Box>
      <details>
        <summary>What matters in choosing, and the price of a kWh</summary>
        <PriorityForm
          priorities={wanted.priorities ?? form_defaults.priorities}
          candidate={undefined}
          pricePerKwh={wanted.price_per_kwh ?? form_defaults.price_per_kwh}
          onChange={(change) => {
            setWanted((now) => ({ ...now, ...change }));
          }}
        />
      </details>
      <Button isDisabled={nothing || chosen.length === 0} onPress={() => void set()}>
        Set it in {chosen.length} {chosen.length === 1 ? "tank" : "tanks"}
      </Button>
      {said && <p role="status">{said}</p>}
      <ProblemNote problem={problem} />
    </details>
  );
}

const Box = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(160px, 1fr));
  gap: 8px 14px;
  align-items: end;
  padding: 6px 0;
`;
