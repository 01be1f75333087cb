import { Inject, Injectable } from '@nestjs/common';
import { Acted, NewMove } from '@wanderon/contract';
import { DomainChoice, Name, Scope, readDomain, scopesMeet } from '@wanderon/core';
import { NetError } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { DATABASE, Database } from '../db/database';
import { EventStore } from '../events/event.store';
import { Network } from '../network/network';
import { Caller } from '../people/allow';
import { InvalidInput, NotNow, NotReachable, Unsuitable } from '../refusals';
import { nameserversOf } from '../survey/takeSurvey';
import { MoveRow } from './move.rows';
import { MoveStore } from './move.store';
import { KEPT, MoveActs } from './moveActs';

/** A move begins with what somebody typed or pasted as a domain. */
@Injectable()
export class BeginService {
  constructor(
    @Inject(DATABASE) private readonly database: Database,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly store: MoveStore,
    private readonly acts: MoveActs,
    private readonly events: EventStore,
    private readonly network: Network,
  ) {}

  /** What a text means as a domain; throws an InvalidInput where it means none. */
  read(text: string): readonly DomainChoice[] {
    const reading = readDomain(text);
    if (!reading.ok) throw new InvalidInput(reading.problem, { field: 'domain', kept: KEPT });
    return reading.choices;
  }

  async start({ domain: text, scope: wish, unused }: NewMove, person: Caller): Promise<Acted> {
    const choices = this.read(text);
    const choice = choices.find((one) => one.scope === wish);
    // A name that is the website's own spelling goes with the whole domain; asked for alone, that is said and not done unsaid.
    if (!choice)
      throw new NotNow(`${text.trim()} cannot be moved alone: it goes with ${choices[0]!.shown}.`, {
        field: 'domain',
        detail: `Take the whole domain ${choices[0]!.shown}.`,
        kept: KEPT,
      });
    const scope = scopeOf(choice);
    const legKind = scope.kind === 'whole' ? 'delegation' : 'repoint';
    await this.refuseOverlap(choice, scope, this.database);
    await this.checkDelegated(choice, unused);
    const id = await this.database.transaction(async (transaction) => {
      // Two people may type the same domain at once: the second one waits here and is refused.
      await transaction.raw('select pg_advisory_xact_lock(hashtextextended(?, 1))', [choice.zone]);
      await this.refuseOverlap(choice, scope, transaction);
      const move = await this.store.create({ domain: choice.zone, scope, person: person.id, at: this.clock.now(), legKind }, transaction);
      await this.events.add(
        { person: person.id, domain: choice.zone, move, kind: 'begun', text: `The move of ${choice.shown} was begun.`, after: { scope } },
        transaction,
      );
      return move;
    });
    return this.acts.onMove(id, person, () => Promise.resolve());
  }

  private async refuseOverlap(choice: DomainChoice, scope: Scope, database: Database): Promise<void> {
    const other: MoveRow | undefined = (await this.store.openOf(choice.zone, database)).find((move) => scopesMeet(move.scope, scope));
    if (other)
      throw new NotNow(`${choice.shown} is being moved already.`, {
        field: 'domain',
        detail: 'Open that move, or close it first.',
        kept: KEPT,
        move: other.id,
      });
  }

  private async checkDelegated(choice: DomainChoice, unused: boolean): Promise<void> {
    try {
      const delegation = await this.network.walker().delegation(Name.parse(`${choice.zone}.`));
      // A domain that was never used is begun by a word of its own: most that are not delegated are misspelt.
      if (nameserversOf(delegation).length === 0 && !(unused && choice.scope === 'whole'))
        throw new Unsuitable(
          `${choice.shown} is not delegated: the servers of ${delegation.parent.replace(/\.$/, '') || 'the root'} know no nameservers for it.`,
          {
            field: 'domain',
            kept: KEPT,
            ...(choice.scope === 'whole' ? { detail: 'Look whether it is spelt right. If it was never used before, begin it as that.', unused: true } : {}),
          },
        );
    } catch (error) {
      if (error instanceof NetError)
        throw new NotReachable(`The delegation of ${choice.shown} cannot be read: ${error.message}.`, {
          field: 'domain',
          detail: 'Try again when the network answers.',
          kept: KEPT,
        });
      throw error;
    }
  }
}

/** Each name goes with its own `www`. */
function scopeOf({ scope, names }: DomainChoice): Scope {
  return scope === 'whole'
    ? { kind: 'whole' }
    : { kind: 'names', names: [...new Set(names.flatMap((name) => (name.startsWith('www.') ? [name] : [name, `www.${name}`])))] };
}
