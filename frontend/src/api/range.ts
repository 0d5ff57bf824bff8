/** Range of a field as the API schema has it. */
import { RANGES } from "./ranges";

export type Ranged = keyof typeof RANGES;

interface Range {
  min: number;
  max: number;
  step: number;
}

/** Range and step of a schema's field. times: units of the form in one of the schema's. Default: 1. */
export function range(field: Ranged, times = 1): Range {
  const [min, max, step] = RANGES[field];
  const scaled = (value: number) => Number((value * times).toPrecision(12));
  return { min: scaled(min), max: scaled(max), step: times === 1 ? step : 1 };
}
