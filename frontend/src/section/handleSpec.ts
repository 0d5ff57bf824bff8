/** A drag handle on the drawing. */
export type HandleName = "fill" | "wall" | "stand" | "canister" | "intake" | "outlet" | "body";

export interface HandleSpec {
  name: HandleName;
  label: string;
  /** Reference of the value, for its label. */
  words: string;
  value: number;
  least: number;
  most: number;
  x: number;
  y: number;
  along: "x" | "y";
  /** Centimetres of the value for a move of one pixel. */
  perPixel: number;
}
