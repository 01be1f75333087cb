import { Injectable, OnModuleDestroy, OnModuleInit } from '@nestjs/common';
import { NewResolver, ResolverTrial, ResolverView } from '@wanderon/contract';
import { Name, RCODE, TYPE_CODES, rcodeName } from '@wanderon/core';
import { Subscription } from 'rxjs';
import { EventStore } from '../events/event.store';
import { LiveService } from '../live/live.service';
import { askLookout } from '../network/askLookout';
import { Lookout } from '../network/lookout';
import { Network, observed } from '../network/network';
import { Caller } from '../people/allow';
import { InvalidInput, NotNow, notFound } from '../refusals';
import { AddedResolver, ResolverStore } from './resolver.store';

const UNCHANGED = 'Nothing was changed.';

/** The resolvers that moves are watched from: those that are always there, those of the configuration, and those that people add. */
@Injectable()
export class ResolversService implements OnModuleInit, OnModuleDestroy {
  private watching: Subscription | undefined;

  constructor(
    private readonly store: ResolverStore,
    private readonly network: Network,
    private readonly events: EventStore,
    private readonly live: LiveService,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.refresh();
    // Another process may have added one.
    this.watching = this.live.changes.subscribe((change) => {
      if (change.topic === 'resolvers') void this.refresh();
    });
  }

  onModuleDestroy(): void {
    this.watching?.unsubscribe();
  }

  list(): ResolverView[] {
    const view = ({ name, address, over, stands, note }: Lookout, id: string | null): ResolverView => ({ id, name, address, over, stands, note });
    return this.network.lookouts.map((one) => view(one, 'id' in one ? (one as AddedResolver).id : null));
  }

  /** Throws an InvalidInput where it does not answer, and nobody said that it is to be added all the same. */
  async add(input: NewResolver, person: Caller): Promise<void> {
    if (this.network.lookouts.some(({ name }) => name.toLowerCase() === input.name.toLowerCase()))
      throw new NotNow(`There is a resolver named ${input.name} already.`, { field: 'name', kept: UNCHANGED });
    const { problem } = await this.tried(input);
    if (problem !== null && !input.anyway)
      throw new InvalidInput(`It does not answer: ${problem}.`, { field: 'address', detail: 'Set it right, or add it anyway.', kept: UNCHANGED });
    const text = `The resolver ${input.name} at ${input.address} was added.`;
    await this.store.add(input, async (transaction) => {
      await this.events.add({ person: person.id, kind: 'resolver', text, before: null, after: input }, transaction);
    });
    await this.changed();
  }

  async remove(id: string, person: Caller): Promise<void> {
    const name = await this.store.remove(id, async (removed, transaction) => {
      await this.events.add({ person: person.id, kind: 'resolver', text: `The resolver ${removed} was taken out.`, before: { id }, after: null }, transaction);
    });
    if (name === undefined) throw notFound('resolver');
    await this.changed();
  }

  async order(ids: readonly string[], person: Caller): Promise<void> {
    await this.store.order(ids, async (transaction) => {
      await this.events.add({ person: person.id, kind: 'resolver', text: 'The resolvers stand in another order.', before: null, after: { ids } }, transaction);
    });
    await this.changed();
  }

  /** Asks one of those that are there; throws where there is none of that name. */
  async try(name: string): Promise<ResolverTrial> {
    const lookout = this.network.lookouts.find((one) => one.name === name);
    if (!lookout) throw notFound('resolver');
    return this.tried(lookout);
  }

  private async tried(lookout: Lookout): Promise<ResolverTrial> {
    const began = performance.now();
    const asked = await observed(askLookout(this.network, lookout, this.network.walker(), { name: Name.root, type: TYPE_CODES.NS }));
    if (!asked.ok) return { milliseconds: null, problem: asked.problem };
    const { rcode, answers } = asked.value;
    if (rcode !== RCODE.NOERROR) return { milliseconds: null, problem: `it answers ${rcodeName(rcode)}` };
    if (answers.length === 0) return { milliseconds: null, problem: 'it does not know the nameservers of the root' };
    return { milliseconds: Math.round(performance.now() - began), problem: null };
  }

  private async changed(): Promise<void> {
    await this.refresh();
    await this.live.tell({ topic: 'resolvers' });
  }

  private async refresh(): Promise<void> {
    this.network.setAdded(await this.store.list());
  }
}
