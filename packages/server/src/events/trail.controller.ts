import { Controller, Get, Query } from '@nestjs/common';
import { TrailPage, trailPageSchema } from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { z } from 'zod';
import { Allow } from '../people/allow';
import { EventStore } from './event.store';

class TrailPageDto extends createZodDto(trailPageSchema) {}
class TrailQueryDto extends createZodDto(z.object({ before: z.coerce.number().int().positive().optional(), text: z.string().max(200).default('') })) {}

/** What is on record, of everything. */
@Controller('api/trail')
export class TrailController {
  constructor(private readonly events: EventStore) {}

  @Get()
  @Allow('administrator')
  @ZodResponse({ type: TrailPageDto, description: 'The trail, the newest first, a page at a time.' })
  async page(@Query() { before, text }: TrailQueryDto): Promise<TrailPage> {
    return this.events.page(before, text);
  }
}
