import { readFileSync } from 'node:fs';
import { requirementSchema } from '@wanderon/contract';
import {
  HostKnowledge,
  Name,
  NameError,
  Remark,
  Ruling,
  checkRulings,
  groupRecords,
  isHostsOwn,
  isIpv4,
  isIpv6,
  plainRequirement,
  planFile,
  proposeRulings,
} from '@wanderon/core';
import { z } from 'zod';
import { UsageError, checked } from './zoneFiles';

const hostName = z.string().transform((text, context) => {
  try {
    return Name.parse(text).toString();
  } catch (error) {
    if (!(error instanceof NameError)) throw error;
    context.addIssue({ code: 'custom', message: `${text} is not a name: ${error.message}` });
    return z.NEVER;
  }
});
const address = z.string().refine((text) => isIpv4(text) || isIpv6(text), 'is not an IPv4 or IPv6 address');
const webHost = z.strictObject({
  name: z.string().min(1),
  addresses: z.array(address).default([]),
  aliasTarget: hostName.optional(),
  requires: z.array(requirementSchema).default([]),
  /** Who makes its certificates, as CAA records name them. */
  issuers: z.array(z.string()).default([]),
});

/** Where a zone goes and what it leaves, as somebody wrote it down. */
const hostsFile = z.strictObject({
  oldWeb: z.array(webHost.omit({ requires: true })).default([]),
  newDns: z.strictObject({
    name: z.string().min(1),
    nameservers: z.array(hostName).default([]),
    lacks: z.array(z.string()).default([]),
    most: z.number().int().min(1).nullable().default(null),
    apexAlias: z.boolean().default(false),
    /** Seconds. */
    leastTtl: z.number().int().min(0).default(0),
  }),
  newWeb: webHost.optional(),
});

interface PlanOptions {
  readonly files: readonly string[];
  readonly origin?: string | undefined;
  readonly hosts?: string | undefined;
  readonly json?: boolean | undefined;
  readonly zone?: boolean | undefined;
}

/** Proposes a plan for a zone file and checks it, as the ledger does; needs no database. Gives the exit code. */
export function plan({ files, origin, hosts: hostsPath, json, zone: asZone }: PlanOptions): number {
  const file = files[0]!;
  if (hostsPath === undefined) throw new UsageError('plan needs --hosts FILE.json');
  const hosts = readHosts(hostsPath);
  const { loads, findings, records, name } = checked(file, origin);
  const errors = findings.filter((one) => one.severity === 'error');
  if (!loads) {
    if (json) console.log(JSON.stringify({ file, loads, findings }));
    else for (const one of errors) console.error(`${one.file ?? file}:${one.line}:${one.column}: error: ${one.code}: ${one.text}`);
    return 1;
  }
  const rulings = proposeRulings(name, groupRecords(records), hosts);
  const remarks = checkRulings({
    ...hosts,
    zone: name,
    rulings,
    fronted: [],
    outside: null,
    leaves: undefined,
    edge: undefined,
    redirects: [],
    faults: [],
    sharedServers: [],
  });
  if (json) console.log(JSON.stringify({ file, zone: name.toString(), loads, findings, rulings: rulings.map(shown), remarks }));
  else if (asZone) process.stdout.write(planFile(name, rulings, { entry: null }, 'settled'));
  else {
    for (const ruling of rulings.filter((one) => !isHostsOwn(one))) console.log(lineOf(ruling));
    for (const { owner, type, weight, code, text } of remarks) console.log(`${file}: ${owner} ${type}: ${weight}: ${code}: ${text}`);
  }
  return remarks.some((one: Remark) => one.weight === 'stop') ? 1 : 0;
}

function readHosts(path: string) {
  let given: unknown;
  try {
    given = JSON.parse(readFileSync(path, 'utf8'));
  } catch (error) {
    if (error instanceof SyntaxError) throw new UsageError(`${path} is not JSON: ${error.message}`);
    throw error;
  }
  const read = hostsFile.safeParse(given);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new UsageError(`${path}: ${issue!.path.join('.') || 'the whole'}: ${issue!.message}`);
  }
  const { oldWeb, newDns, newWeb } = read.data;
  const web = ({ requires = [], ...one }: Omit<z.infer<typeof webHost>, 'requires'> & { requires?: z.infer<typeof requirementSchema>[] }): HostKnowledge => ({
    ...one,
    nameservers: [],
    aliasTarget: one.aliasTarget,
    requires: requires.map(plainRequirement),
  });
  return {
    oldWeb: oldWeb.map(web),
    newDns: { name: newDns.name, nameservers: newDns.nameservers, addresses: [], aliasTarget: undefined, requires: [], apexAlias: newDns.apexAlias },
    newWeb: newWeb && web(newWeb),
    lacks: newDns.lacks,
    most: newDns.most,
    ttls: { ttls: [], leastTtl: newDns.leastTtl },
    apexAlias: { host: newDns.name, takes: newDns.apexAlias, known: true },
  };
}

function shown({ owner, type, ruling, found, planned, reason }: Ruling) {
  return { owner, type, ruling, found: found ?? null, planned: planned ?? null, reason };
}

/** `repoint www.lighthouse.example. A 192.0.2.80 -> 203.0.113.80 ; leads to the old web host` */
function lineOf({ owner, type, ruling, found, planned, reason }: Ruling): string {
  const [before, after] = [found?.data.join(', ') ?? '', planned?.data.join(', ') ?? ''];
  const values = ruling === 'repoint' ? `${before} -> ${after}` : after || before;
  return `${ruling} ${owner} ${type} ${values} ; ${reason}`;
}
