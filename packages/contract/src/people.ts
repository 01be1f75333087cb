import { z } from 'zod';

export const ROLES = ['viewer', 'technician', 'administrator'] as const;
export const roleSchema = z.enum(ROLES);
export type Role = z.infer<typeof roleSchema>;

export const signInSchema = z.object({
  login: z.string().trim().min(1, 'Type your login.').max(100),
  password: z.string().min(1, 'Type your password.').max(1000),
});
export type SignIn = z.infer<typeof signInSchema>;

export const meSchema = z.object({
  id: z.string(),
  login: z.string(),
  name: z.string(),
  role: roleSchema,
  /** Sent back in the x-csrf-token header of every change. */
  csrf: z.string(),
  /** The lab's control address where the server runs in the lab. */
  lab: z.string().nullable(),
});
export type Me = z.infer<typeof meSchema>;

export const personSchema = z.object({ id: z.string(), login: z.string(), name: z.string(), role: roleSchema, disabled: z.boolean() });
export type Person = z.infer<typeof personSchema>;

export const newPersonSchema = z.object({
  login: z
    .string()
    .trim()
    .regex(/^[a-z0-9._-]{2,40}$/, 'A login is 2 to 40 small letters, digits, dots, dashes or underscores.'),
  name: z.string().trim().min(1, 'Type a name.').max(100),
  role: roleSchema,
  password: z.string().min(12, 'A password has at least 12 characters.').max(1000),
});
export type NewPerson = z.infer<typeof newPersonSchema>;

export const personListSchema = z.object({ people: z.array(personSchema) });
