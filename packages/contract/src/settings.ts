import { z } from 'zod';

/** One setting as it is in force. A secret has no value here: only whether it is set. */
export const settingSchema = z.object({
  name: z.string(),
  what: z.string(),
  value: z.string(),
  /** False: nothing was set, and this is what counts then. */
  isSet: z.boolean(),
});
export type SettingView = z.infer<typeof settingSchema>;
export const settingListSchema = z.object({ settings: z.array(settingSchema) });
