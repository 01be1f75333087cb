/** Hears from the server what changed and has it read anew, a burst of changes at once. */
export declare function useLive(): void;
