type Theme = 'day' | 'night';
/** The person's choice, else what the system prefers. */
export declare function currentTheme(): Theme;
export declare function startTheme(): void;
export declare function toggleTheme(): void;
export {};
