import { readFile } from 'node:fs/promises';
import { Inject, Injectable, Logger, OnModuleInit } from '@nestjs/common';
import { NetError, RdapBootstrap, fetchBootstrap, readBootstrap } from '@wanderon/net';
import { Clock, WALL_CLOCK } from '../clock/clock';
import { CONFIG, Config } from '../config';
import { Network } from '../network/network';
import { resolver } from '../survey/whereNamesLead';
import { KeptList, RegistryListStore } from './registryList.store';

/** Seconds after which the list is fetched anew: registries change their services a few times a year. */
const REFRESH_SECONDS = 86_400;
/** Seconds before a try that failed is made again. */
const RETRY_SECONDS = 3600;

/** Which service answers for which registry: a file of the configuration, or the bootstrap registry (RFC 9224), fetched, kept and refreshed. */
@Injectable()
export class Registries implements OnModuleInit {
  private readonly log = new Logger('registries');
  private kept: KeptList | undefined;
  private fetching: Promise<KeptList> | undefined;

  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(WALL_CLOCK) private readonly wall: Clock,
    private readonly network: Network,
    private readonly store: RegistryListStore,
  ) {}

  async onModuleInit(): Promise<void> {
    const { WANDERON_RDAP_SERVICES: file } = this.config;
    const fixed = file === undefined ? undefined : readBootstrap(JSON.parse(await readFile(file, 'utf8')));
    this.network.setServices(() => (fixed ? Promise.resolve(fixed) : this.services()));
  }

  /**
   * The list as it is known; one that is out of date is fetched anew meanwhile. Undefined where none is to be fetched. Throws a NetError where none
   * ever came.
   */
  async services(): Promise<RdapBootstrap | undefined> {
    const address = this.network.registryList;
    if (address === undefined) return undefined;
    this.kept ??= await this.store.get(address);
    const now = this.wall.now();
    const isDue =
      !this.kept || (now - (this.kept.fetchedAt ?? -Infinity) >= REFRESH_SECONDS && (this.kept.problem === null || now - this.kept.triedAt >= RETRY_SECONDS));
    if (isDue) this.fetching ??= this.fetched(address).finally(() => (this.fetching = undefined));
    if (this.kept?.body) {
      // Nobody waits for it: a database that is away is told in the log, and the list is fetched when it is asked for next.
      this.fetching?.catch((error: unknown) => this.log.error(error));
      return this.kept.body;
    }
    const kept = this.fetching ? await this.fetching : this.kept!;
    if (!kept.body) throw new NetError('unreachable', `the list of registration data services did not come: ${kept.problem ?? 'it is empty'}`);
    return kept.body;
  }

  private async fetched(address: string): Promise<KeptList> {
    const now = this.wall.now();
    const before = this.kept;
    const kept = await this.fetch(address).then(
      (body): KeptList => ({ body, fetchedAt: now, triedAt: now, problem: null }),
      (error: unknown): KeptList => {
        if (!(error instanceof NetError)) throw error;
        return { body: before?.body ?? null, fetchedAt: before?.fetchedAt ?? null, triedAt: now, problem: error.message };
      },
    );
    await this.store.put(address, kept);
    return (this.kept = kept);
  }

  /** Throws a NetError where it does not come. */
  protected fetch(address: string): Promise<RdapBootstrap> {
    const { http } = this.network.surveyWorld;
    return fetchBootstrap({ ...http, resolve: resolver(this.network.walker(), (host) => host) }, new URL(address));
  }
}
