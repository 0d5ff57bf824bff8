/** Rooms that a tank may stand in, with their words. */
export const ROOMS = [
  ["living", "Living room"],
  ["bedroom", "Bedroom"],
  ["workshop", "Workshop"],
  ["shop", "Shop"],
  ["fish-room", "Fish room"],
] as const;
