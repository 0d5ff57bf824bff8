/** Filters of a plan as the drawing takes them, and keys of new ones. */
import type { FilterPlan } from "../api/schemas";
import type { SectionFilter } from "../section/sectionFilter";

/** Installed filters, as the drawing takes them. */
export function hanging(plan: FilterPlan): SectionFilter[] {
  return plan.filters.filter((f) => !f.retired).map(({ key, filter }) => ({ key, filter }));
}

/** A key no filter of this tank ever had. */
export function newFilterKey(filters: { key: string }[]): string {
  const numbers = filters.map((f) => Number(/^f(\d+)$/.exec(f.key)?.[1] ?? 0));
  return `f${Math.max(0, ...numbers) + 1}`;
}
