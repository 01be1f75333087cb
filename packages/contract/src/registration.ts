import { z } from 'zod';
import { instant } from './common';

/** What a person says of the registration; null: not said. */
export const givenRegistrationSchema = z.object({
  registrar: z.string().trim().max(200).nullable(),
  expires: instant.nullable(),
  locked: z.boolean().nullable(),
});
export type GivenRegistrationInput = z.output<typeof givenRegistrationSchema>;

/** The registrar at which the nameservers are changed, by its id as a host. */
export const registrarSchema = z.object({ host: z.uuid() });
export type RegistrarInput = z.output<typeof registrarSchema>;
