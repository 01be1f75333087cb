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
  knownStyleSchema,
  placeActSchema,
  whereSchema,
  HostInput,
} from '@wanderon/contract';
import { ACTS_OF_ROLE, PLACE_ACT_WORDS, PlaceAct } from '@wanderon/core';
import { createZodDto, ZodResponse } from 'nestjs-zod';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { InvalidInput } from '../refusals';
import { Allow, Caller, Person } from '../people/allow';
import { HostStore } from './host.store';

class HostDto extends createZodDto(hostSchema) {}
class HostQueryDto extends createZodDto(hostQuerySchema) {}
class KeepPlaceDto extends createZodDto(keepPlaceSchema) {}
class HostListDto extends createZodDto(hostListSchema) {}
class HostPageDto extends createZodDto(hostPageSchema) {}
class WhereDto extends createZodDto(whereSchema) {}
class KnownStyleDto extends createZodDto(knownStyleSchema) {}
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

  @Put(':id/where/:act')
  @Allow('technician')
  @ZodResponse({ type: HostDto, description: 'Notes where in the panel of a place something is done; all of it empty: nobody wants to note it.' })
  async where(@Param('id') id: string, @Param('act') act: string, @Body() input: WhereDto, @Person() person: Caller): Promise<Host> {
    const read = placeActSchema.safeParse(act);
    if (!read.success) throw new InvalidInput('Nothing like that is done at a host.', { field: 'act', kept: 'Nothing was changed.' });
    return this.noted(
      id,
      person,
      (host) => ({ where: [...host.where.filter((one) => one.act !== read.data), { act: checkedAct(host, read.data), ...input }] }),
      (host) =>
        isEmpty(input)
          ? `Where to click at ${host.name} for ${PLACE_ACT_WORDS[read.data]} is not to be noted.`
          : `Where to click at ${host.name} for ${PLACE_ACT_WORDS[read.data]} was noted.`,
    );
  }

  @Put(':id/habits')
  @Allow('technician')
  @ZodResponse({ type: HostDto, description: 'Notes how the panel of a DNS host wants names and values; what is left out stays as it is.' })
  async habits(@Param('id') id: string, @Body() input: KnownStyleDto, @Person() person: Caller): Promise<Host> {
    return this.noted(
      id,
      person,
      (host) => ({ entry: { ...host.entry, ...input } }),
      (host) => `How the panel of ${host.name} wants names and values was noted.`,
    );
  }

  private async noted(id: string, person: Caller, change: Parameters<HostStore['note']>[1], words: (host: Host) => string): Promise<Host> {
    const host = await this.hosts.note(id, change, (before, after, transaction) =>
      this.events.add({ person: person.id, kind: 'host', text: words(after), before, after }, transaction),
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

const isEmpty = ({ link, path, first }: WhereDto): boolean => link === '' && path === '' && first === '';

function checkedAct({ name, role }: Host, act: PlaceAct): PlaceAct {
  if ((ACTS_OF_ROLE[role] as readonly PlaceAct[]).includes(act)) return act;
  throw new InvalidInput(`Nothing like that is done at ${name}.`, { field: 'act', kept: 'Nothing was changed.' });
}

/** That a key was given or taken, not what it is. */
function keyWords(before: Host | undefined, { key }: HostInput): string {
  const had = (before?.keyName ?? null) !== null;
  if (key) return had ? ', its key replaced' : ', with a key';
  return key === null && had ? ', its key taken out' : '';
}
