export * from "./choices";
export * from "./controls";
export { Fold } from "./Fold";
export * from "./layout";
export * from "./notes";
export * from "./tabs";
export * from "./Term";
export * from "./theme";
export * from "./working";
