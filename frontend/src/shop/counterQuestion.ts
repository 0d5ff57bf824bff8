/** What the counter asks, kept in the address of its page. */
import type { CounterQuestion, Label } from "../api/schemas";
import { EMPTY_LABEL, saysEnough } from "../shared/LabelForm";
import { ROOMS } from "../shared/roomKinds";

export const MOST_BOXES = 4;
type Room = (typeof ROOMS)[number][0];

/** What is typed; it stands in the address, so that a link opens it again. */
export interface Asked {
  litres: number | null;
  animals: NonNullable<CounterQuestion["animals"]>;
  room: Room;
  /** Back glass to wall, cm; null for as usual. */
  behind: number | null;
  boxes: Label[];
}
export const BLANK: Asked = { litres: null, animals: [], room: "living", behind: null, boxes: [EMPTY_LABEL] };

export function fromAddress(): Asked {
  try {
    const text = new URLSearchParams(window.location.search).get("q");
    if (!text) return BLANK;
    const asked = JSON.parse(text) as Partial<Asked>;
    return {
      ...BLANK,
      ...asked,
      boxes: (asked.boxes ?? BLANK.boxes).map((box) => ({ ...EMPTY_LABEL, ...box })).slice(0, MOST_BOXES),
    };
  } catch {
    return BLANK;
  }
}

export function addressOf(asked: Asked): string {
  // Only what was typed, so that the link stays short.
  const boxes = asked.boxes.map((box) =>
    Object.fromEntries(Object.entries(box).filter(([key, v]) => v !== EMPTY_LABEL[key as keyof Label])),
  );
  return `${window.location.pathname}?q=${encodeURIComponent(JSON.stringify({ ...asked, boxes }))}`;
}

export function questionOf({ litres, animals, room, behind, boxes }: Asked): CounterQuestion | null {
  return litres === null
    ? null
    : {
        litres,
        animals,
        room,
        behind_cm: behind,
        boxes: boxes.filter(saysEnough),
      };
}
