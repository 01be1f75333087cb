import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';

/** What answers a request that has nothing to give. */
export class DoneDto extends createZodDto(z.object({ done: z.literal(true) })) {}
export type Done = z.infer<typeof DoneDto.schema>;
export const DONE: Done = { done: true };
