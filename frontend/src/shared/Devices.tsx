/** Devices that write to this tank's logbook: flow meter, smart plug, test device, thermometer, pH probe. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ask, client, ProblemError } from "../api/client";
import type { DeviceList } from "../api/schemas";
import { Button, Fields, ProblemNote, Select, TextField } from "../kit";
import { Bar } from "../kit";

const KINDS = [
  ["flow-meter", "Flow meter"],
  ["smart-plug", "Smart plug"],
  ["test-kit", "Test device"],
  ["thermometer", "Thermometer"],
  ["ph-probe", "pH probe"],
] as const;

interface Props {
  tankId: number;
  /** Key and name of each installed filter. */
  filters: [string, string][];
}

interface DeviceRowsProps {
  devices: DeviceList["devices"];
  filters: Props["filters"];
  onRemove: (id: number) => void;
}

function DeviceRows({ devices, filters, onRemove }: DeviceRowsProps) {
  return (
    <ul>
      {devices.map((d) => (
        <li key={d.id}>
          <Bar>
            <b>{d.name}</b>
            <span>
              {KINDS.find(([k]) => k === d.kind)?.[1]}
              {filters.length > 1 &&
                d.filter_key != null &&
                ` at ${filters.find(([k]) => k === d.filter_key)?.[1] ?? "a filter taken off"}`}
            </span>
            <Button
              $quiet
              aria-label={`Remove ${d.name}`}
              onPress={() => {
                onRemove(d.id);
              }}
            >
              Remove
            </Button>
          </Bar>
        </li>
      ))}
    </ul>
  );
}

export function Devices({ tankId, filters }: Props) {
  const path = { tank_id: tankId };
  const queries = useQueryClient();
  const list = useQuery({
    queryKey: ["devices", tankId],
    queryFn: () => ask(client.GET("/api/tanks/{tank_id}/devices", { params: { path } })),
  });
  const [name, setName] = useState("");
  const [kind, setKind] = useState<(typeof KINDS)[number][0]>("flow-meter");
  const [at, setAt] = useState("");
  const [token, setToken] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const attempt = async (work: () => Promise<void>) => {
    try {
      setProblem(null);
      await work();
      await queries.invalidateQueries({ queryKey: ["devices", tankId] });
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const make = async () => {
    const made = await ask(
      client.POST("/api/tanks/{tank_id}/devices", {
        params: { path },
        body: { name: name.trim(), kind, filter_key: at || null },
      }),
    );
    setToken(made.token);
    setName("");
  };
  const remove = async (device_id: number) => {
    await ask(
      client.DELETE("/api/tanks/{tank_id}/devices/{device_id}", {
        params: { path: { ...path, device_id } },
      }),
    );
  };
  return (
    <>
      <DeviceRows
        devices={list.data?.devices ?? []}
        filters={filters}
        onRemove={(id) => void attempt(() => remove(id))}
      />
      <Fields>
        <TextField label="Name of the device" value={name} onChange={setName} />
        <Select label="Kind of device" value={kind} onChange={setKind} options={KINDS} />
        {filters.length > 1 && (kind === "flow-meter" || kind === "smart-plug") && (
          <Select
            label="At which filter"
            value={at}
            onChange={setAt}
            options={[["", "all of them"], ...filters]}
          />
        )}
      </Fields>
      <ProblemNote problem={problem} />
      <Bar>
        <Button $quiet isDisabled={!name.trim()} onPress={() => void attempt(make)}>
          Let it write here
        </Button>
      </Bar>
      {token && (
        <p role="status">
          Its token, shown this once: <code style={{ overflowWrap: "anywhere" }}>{token}</code>. It is sent
          with each reading to <code>/api/device/readings</code>; the API reference tells how.
        </p>
      )}
    </>
  );
}
