/** What somebody may do, each what those before it may as well. */
export const ROLES = ['viewer', 'technician', 'administrator'] as const;
export type Role = (typeof ROLES)[number];
