import { z } from 'zod';
import { ROLES } from './roles';
import { LONGEST_PASSWORD, codeSchema } from './signIn';

const roleSchema = z.enum(ROLES);

/** What somebody has to do before anything else. */
export const mustSchema = z.enum(['password', 'second factor']);
export type Must = z.infer<typeof mustSchema>;

export const meSchema = z.object({
  id: z.string(),
  login: z.string(),
  name: z.string(),
  role: roleSchema,
  /** Sent back in the x-csrf-token header of every change. */
  csrf: z.string(),
  must: mustSchema.nullable(),
  /** There is a second factor; an administrator asks for one. */
  factor: z.boolean(),
  demanded: z.boolean(),
  /** The lab's control address where the server runs in the lab. */
  lab: z.string().nullable(),
});
export type Me = z.infer<typeof meSchema>;

export const personSchema = z.object({
  id: z.string(),
  login: z.string(),
  name: z.string(),
  role: roleSchema,
  disabled: z.boolean(),
  factor: z.boolean(),
  demanded: z.boolean(),
  /** The password is to be changed when it is used next. */
  mustChange: z.boolean(),
  /** When somebody was last active in a session; null: never. */
  lastSeen: z.number().nullable(),
  sessions: z.number().int(),
});
export type Person = z.infer<typeof personSchema>;
export const personListSchema = z.object({ people: z.array(personSchema) });

const nameSchema = z.string().trim().min(1, 'Type a name.').max(100);
/** How good it has to be is the server's to say: it knows the common ones. */
const newPasswordSchema = z.string().min(1, 'Type a password.').max(LONGEST_PASSWORD, `A password has at most ${LONGEST_PASSWORD} characters.`);

export const newPersonSchema = z.object({
  login: z
    .string()
    .trim()
    .regex(/^[a-z0-9._-]{2,40}$/, 'A login is 2 to 40 small letters, digits, dots, dashes or underscores.'),
  name: nameSchema,
  role: roleSchema,
  password: newPasswordSchema,
  /** It is to be changed at first use. */
  mustChange: z.boolean().default(true),
});
export type NewPerson = z.input<typeof newPersonSchema>;

/** The first account, made by whoever has the link that the start printed. */
export const firstPersonSchema = newPersonSchema.pick({ login: true, name: true, password: true }).extend({ secret: z.string().min(1).max(100) });
export type FirstPerson = z.infer<typeof firstPersonSchema>;

export const editPersonSchema = z.object({ name: nameSchema, role: roleSchema, disabled: z.boolean(), demanded: z.boolean() });
export type EditPerson = z.infer<typeof editPersonSchema>;

export const givenPasswordSchema = z.object({ password: newPasswordSchema });
export const ownPasswordSchema = z.object({
  current: z.string().min(1, 'Type the password that you have now.').max(LONGEST_PASSWORD),
  password: newPasswordSchema,
});
export type OwnPassword = z.infer<typeof ownPasswordSchema>;

export const sessionSchema = z.object({
  id: z.string(),
  begun: z.number(),
  seen: z.number(),
  ends: z.number(),
  address: z.string(),
  /** The browser as it names itself. */
  agent: z.string(),
  /** The one that asks. */
  own: z.boolean(),
});
export type Session = z.infer<typeof sessionSchema>;
export const sessionListSchema = z.object({ sessions: z.array(sessionSchema) });

/** A second factor that is being set up: its secret in base 32, and the address that an app reads from a picture. */
export const factorOfferSchema = z.object({ secret: z.string(), address: z.string() });
export type FactorOffer = z.infer<typeof factorOfferSchema>;
export const factorBeginSchema = z.object({ password: z.string().min(1, 'Type your password.').max(LONGEST_PASSWORD) });
export const factorConfirmSchema = z.object({ code: codeSchema });
/** Each opens the account once, where the app is lost. */
export const recoveryCodesSchema = z.object({ codes: z.array(z.string()) });
export type RecoveryCodes = z.infer<typeof recoveryCodesSchema>;

/** Something on record that is of no move: who signed in, what was refused, what became of people and hosts. */
export const trailEntrySchema = z.object({
  id: z.number(),
  at: z.number(),
  who: z.string().nullable(),
  kind: z.string(),
  domain: z.string().nullable(),
  text: z.string(),
});
export type TrailEntry = z.infer<typeof trailEntrySchema>;
export const trailPageSchema = z.object({ entries: z.array(trailEntrySchema), next: z.number().nullable() });
export type TrailPage = z.infer<typeof trailPageSchema>;
