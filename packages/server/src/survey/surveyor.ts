import { setMaxListeners } from 'node:events';
import { Inject, Injectable } from '@nestjs/common';
import { Name, parsePrefix } from '@wanderon/core';
import { deadline } from '@wanderon/net';
import { CLOCK, Clock } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { HostStore } from '../hosts/host.store';
import { Network } from '../network/network';
import { RunningSurveys } from './runningSurveys';
import { SurveyStore } from './survey.store';
import { Given, SurveyWish } from './surveyWorld';
import { TakenSurvey, takeSurvey } from './takeSurvey';

/** Names of other zones that are asked for. */
const SIBLINGS = 200;

/** Share of the time of a survey after which no more questions are begun: what is found has to be put together within the rest. */
const ENOUGH = 0.7;

/** Takes surveys with all that the agency knows: its hosts and their keys, and what its other zones are like. */
@Injectable()
export class Surveyor {
  private readonly minutes: number;

  constructor(
    @Inject(CONFIG) config: Config,
    @Inject(CLOCK) private readonly clock: Clock,
    private readonly network: Network,
    private readonly hosts: HostStore,
    private readonly surveys: SurveyStore,
    private readonly running: RunningSurveys,
  ) {
    this.minutes = config.WANDERON_SURVEY_MINUTES;
  }

  /** The process is ending: a survey that was cut off is taken by the next one. */
  get closing(): boolean {
    return this.running.closing;
  }

  /** Throws a NetError: of kind `cancelled` where somebody stopped it, of kind `timeout` where it took too long in all. */
  async take(
    of: { move: string } | { sweep: string; domain: string },
    zone: Name,
    known: { given?: Given; about?: readonly Name[]; pages?: readonly string[]; before?: SurveyWish['before']; brief?: boolean } = {},
  ): Promise<TakenSurvey> {
    const dns = (await this.hosts.list(undefined, 'move' in of ? of.move : undefined)).filter((host) => host.role === 'dns');
    const byDomain = new Set(dns.flatMap((host) => (host.habits.nameservers === 'by domain' ? [host.id] : [])));
    const given = await this.hosts.namesGiven([...byDomain]);
    const wish: SurveyWish = {
      zone,
      given: known.given ?? { names: [], sets: [] },
      about: known.about ?? [],
      pages: known.pages ?? [],
      brief: known.brief ?? false,
      before: known.before ?? [],
      siblings: () => this.surveys.commonNames(SIBLINGS),
      hosts: dns.map((host) => ({
        id: host.id,
        name: host.name,
        nameservers: host.nameservers,
        addresses: host.addresses,
        ...(byDomain.has(host.id) && { gives: [...host.nameservers, ...(given.get(host.id) ?? [])] }),
        key: () => this.hosts.keyOf(host.id),
      })),
      fronts: dns.flatMap((host) => host.fronts.map((range) => ({ host: host.name, prefix: parsePrefix(range)! }))),
    };
    return this.running.run(of, async (stopped, onProgress) => {
      const { signal, told } = deadline(stopped, this.minutes * 60_000, `The survey was not done after ${this.minutes} minutes, and was broken off`);
      setMaxListeners(0, signal);
      const began = performance.now();
      const isEnough = (): boolean => performance.now() - began > this.minutes * 60_000 * ENOUGH;
      try {
        return await takeSurvey(this.network.surveyWorld, { ...wish, signal, isEnough, onProgress }, () => this.clock.now());
      } catch (error) {
        throw told(error);
      }
    });
  }
}
