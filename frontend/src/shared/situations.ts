/** How a tank stands when it is added: in words, where it begins, and what is asked of it. */
import type { NewTankIn } from "../api/schemas";

export type Stands = NonNullable<NewTankIn["stands"]>;

interface Situation {
  words: string;
  /** Stage that opens first. */
  stage: string;
  /** Question for a day, where one counts. */
  since?: string;
  /** Whether its litres are asked for at once. */
  litres: boolean;
  /** What comes next. */
  then: string;
}

export const SITUATIONS: Record<Stands, Situation> = {
  empty: {
    words: "empty, at its beginning",
    stage: "tank",
    litres: true,
    then: "Its litres, or three sizes; then animals, filter, fitting and cycle.",
  },
  cycling: {
    words: "cycling already",
    stage: "cycle",
    since: "Its cycle began on",
    litres: true,
    then: "Next: how it is cycled, and the tests made so far.",
  },
  "animals-in": {
    words: "animals are in already",
    stage: "cycle",
    since: "The first animals came on",
    litres: true,
    then: "Next: one test of ammonia, nitrite and pH, and what to do today. Nothing is dosed.",
  },
  running: {
    words: "has run for months or years",
    stage: "stock",
    since: "It has run since about",
    litres: true,
    then: "Next: who lives in it and what filters it. Its filter bacteria are taken as theirs; no old step is asked for.",
  },
  "filter-in-hand": {
    words: "only a filter in hand",
    stage: "filter",
    litres: true,
    then: "Next: what is printed on the box, as far as it is known.",
  },
};
