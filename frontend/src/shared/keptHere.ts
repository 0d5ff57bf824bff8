/** What is said of an entry that waits on this device. */
export const KEPT_HERE = "Kept on this device; it will be sent later.";
