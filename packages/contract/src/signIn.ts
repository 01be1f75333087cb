import { z } from 'zod';

export const LONGEST_PASSWORD = 1000;

/** Six digits of an app, or a recovery code; blanks and dashes are nobody's concern. */
export const codeSchema = z
  .string()
  .max(40)
  .transform((text) => text.replace(/[\s-]/g, '').toLowerCase());

export const signInSchema = z.object({
  login: z.string().trim().min(1, 'Type your login.').max(100),
  password: z.string().min(1, 'Type your password.').max(LONGEST_PASSWORD),
  /** The second factor, where the account has one. */
  code: codeSchema.optional(),
});
export type SignIn = z.infer<typeof signInSchema>;
