import { Body, Controller, Get, HttpCode, Param, Post, Put, Query } from '@nestjs/common';
import {
  Host,
  HostPageView,
  hostInputSchema,
  hostListSchema,
  hostPageSchema,
  hostQuerySchema,
  keepPlaceSchema,
  hostSchema,
  HostInput,
} from '@wanderon/contract';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { Allow, Caller, Person } from '../people/allow';
import { HostStore } from './host.store';

class HostDto extends createZodDto(hostSchema) {}
class HostQueryDto extends createZodDto(hostQuerySchema) {}
class KeepPlaceDto extends createZodDto(keepPlaceSchema) {}
class HostListDto extends createZodDto(hostListSchema) {}
class HostPageDto extends createZodDto(hostPageSchema) {}
class HostInputDto extends createZodDto(hostInputSchema) {}

@Controller('api/hosts')
export class HostsController {
  constructor(
    private readonly hosts: HostStore,
    private readonly events: EventStore,
    private readonly live: LiveService,
  ) {}

  @Get()
  @Allow('viewer')
  @ZodResponse({ type: HostListDto, description: 'Every host the agency knows; with a move, the places that only this move knows as well.' })
  async list(@Query() { move }: HostQueryDto): Promise<{ hosts: Host[] }> {
    return { hosts: await this.hosts.list(undefined, move) };
  }

  @Get(':id')
  @Allow('viewer')
  @ZodResponse({ type: HostPageDto, description: 'One host, the moves that use it, and what became of it.' })
  async page(@Param('id') id: string): Promise<HostPageView> {
    const host = await this.hosts.get(id);
    return { host, uses: await this.hosts.uses(id), history: await this.events.ofHost(id) };
  }

  @Post()
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: HostDto, description: 'Adds a host.' })
  async add(@Body() input: HostInputDto, @Person() person: Caller): Promise<Host> {
    return this.saved(undefined, input, person);
  }

  @Put(':id')
  @Allow('technician')
  @ZodResponse({ type: HostDto, description: 'Changes a host.' })
  async change(@Param('id') id: string, @Body() input: HostInputDto, @Person() person: Caller): Promise<Host> {
    return this.saved(id, input, person);
  }

  @Post(':id/keep')
  @HttpCode(200)
  @Allow('technician')
  @ZodResponse({ type: HostDto, description: 'Keeps a place that only one move knows as a host of the agency.' })
  async keep(@Param('id') id: string, @Body() { name }: KeepPlaceDto, @Person() person: Caller): Promise<Host> {
    const host = await this.hosts.keepPlace(id, name, (before, after, transaction) =>
      this.events.add({ person: person.id, kind: 'host', text: `${after.name} was kept as a host.`, before, after }, transaction),
    );
    await this.live.tell({ topic: 'hosts' });
    return host;
  }

  private async saved(id: string | undefined, input: HostInputDto, person: Caller): Promise<Host> {
    const host = await this.hosts.save(id, input, (before, after, transaction) => {
      const text = `${after.name} was ${before ? 'changed' : 'added'}${keyWords(before, input)}.`;
      return this.events.add({ person: person.id, kind: 'host', text, before, after }, transaction);
    });
    await this.live.tell({ topic: 'hosts' });
    return host;
  }
}

/** That a key was given or taken, not what it is. */
function keyWords(before: Host | undefined, { key }: HostInput): string {
  const had = (before?.keyName ?? null) !== null;
  if (key) return had ? ', its key replaced' : ', with a key';
  return key === null && had ? ', its key taken out' : '';
}
