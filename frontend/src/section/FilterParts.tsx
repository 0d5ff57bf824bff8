/** A filter in both views, to scale, with its water path. */
import { DRAWINGS } from "./kinds";
import type { PartProps } from "./parts";

export function FilterParts(props: PartProps) {
  const { Part } = DRAWINGS[props.filter.kind];
  return <Part {...props} />;
}
