export * from "./controls";
export * from "./notes";
export * from "./theme";
export * from "./working";
