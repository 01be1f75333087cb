import { counted, plain } from './words';

/** What a survey can claim of itself. */
export interface Coverage {
  readonly grade: 'whole' | 'likely whole' | 'partial';
  readonly reasons: readonly string[];
}

/** One authority as it answered during a survey. */
export interface AuthorityAnswer {
  readonly server: string;
  readonly address: string;
  /** It answers for the zone. */
  readonly authoritative: boolean;
  /** Without the bit that claims authority (AA, RFC 1035 §4.1.1). */
  readonly withoutAuthority?: boolean | undefined;
  readonly serial: number | undefined;
  readonly transferred: boolean;
  /** Why nothing, or no transfer, could be had from it, in words. */
  readonly problem: string | undefined;
  /** It sent an answer, whatever it was. */
  readonly responded: boolean;
  /** Why it could not be asked over TCP; undefined where it could. */
  readonly tcpProblem: string | undefined;
  /** The zone's own NS set as it serves it, absolute. */
  readonly nameservers: readonly string[];
  /** It serves keys for the zone. */
  readonly signed: boolean;
}

/** How the sets of a survey were come by. */
export type Means =
  | {
      readonly kind: 'transfer';
      /** How many sets differ between servers that gave the zone at one serial. */
      readonly differing: number;
    }
  /** Along the NSEC chain; `whole` only where the chain closed, all it names was fetched and the serial stayed. */
  | {
      readonly kind: 'walk';
      readonly address: string;
      readonly serial: number | undefined;
      readonly names: number;
      readonly whole: boolean;
      readonly problems: readonly string[];
    }
  | {
      readonly kind: 'questions';
      readonly address: string;
      readonly asked: number;
      /** It is a zone of addresses: these were asked for, and not what is common elsewhere. */
      readonly range?: boolean;
      readonly remarks: readonly string[];
      readonly file: FileInHand | undefined;
    };

/** A zone file that a person gave, or a zone as a server gave it that they named, held against what is served. */
export interface FileInHand {
  /** Of its SOA record. */
  readonly serial: number;
  /** The server, where it is no file. */
  readonly from?: string | undefined;
  /** Sets that it and the servers have otherwise, and sets found that it does not have. */
  readonly differing: number;
}

/** What asking every authority for every set showed. */
export interface Compared {
  /** Sets that servers answer otherwise from one to the other, from one time to the next, or than their transfer holds. */
  readonly varying: number;
  /** Sets that are answered in place of what is stored. */
  readonly fronted: number;
  /** Sets that were not asked for again, there being too many. */
  readonly left: number;
  /** Names that were not asked whether a zone of their own begins there, or did not answer that. */
  readonly unasked: number;
  /** What else speaks against what was found being all there is, in sentences. */
  readonly against: readonly string[];
}

/**
 * What can be claimed. Where answers differ, vary or are made, or something else speaks against it, the inventory is partial,
 * however it was come by. A transfer or a closed walk is whole for the server that gave it, at its serial; the zone is whole
 * only where every other authority that answers serves the same serial, and gave the same answers. Questions never prove that
 * nothing is missing.
 */
export function coverageOf(authorities: readonly AuthorityAnswer[], means: Means, compared: Compared): Coverage {
  const { varying, fronted, left, unasked, against } = compared;
  const claimed = claimedBy(authorities, means, compared);
  const [how, ...more] = claimed.reasons;
  const reasons = [
    // How it was come by, then what speaks against it, then the rest.
    ...(how === undefined ? [] : [how]),
    ...against,
    ...(varying > 0
      ? [`${counted(varying, 'record set is', 'record sets are')} not answered alike: both answers stand beside ${varying === 1 ? 'it' : 'each'}.`]
      : []),
    ...(fronted > 0 ? [`${counted(fronted, 'record set is', 'record sets are')} answered in place of what is stored.`] : []),
    ...(left > 0 ? [`${counted(left, 'record set was', 'record sets were')} not compared with what every nameserver answers.`] : []),
    ...(unasked > 0 ? [`${counted(unasked, 'name was', 'names were')} not asked whether a zone of ${unasked === 1 ? 'its' : 'their'} own begins there.`] : []),
    ...more,
  ];
  if (varying + fronted + against.length > 0) return { grade: 'partial', reasons };
  return { grade: left + unasked > 0 && claimed.grade === 'whole' ? 'likely whole' : claimed.grade, reasons };
}

function claimedBy(authorities: readonly AuthorityAnswer[], means: Means, { varying }: Compared): Coverage {
  switch (means.kind) {
    case 'transfer': {
      const source = authorities.find((authority) => authority.transferred);
      if (!source) return { grade: 'partial', reasons: ['No nameserver gave a transfer; nothing can be claimed.'] };
      const said = `Transferred from ${plain(source.server)} (${source.address}) at serial ${source.serial}.`;
      if (means.differing > 0)
        return {
          grade: 'partial',
          reasons: [said, `${counted(means.differing, 'record set differs', 'record sets differ')} between servers that give the zone at one serial.`],
        };
      return againstOthers(authorities, source, source.serial, said);
    }
    case 'walk': {
      const source = authorities.find((authority) => authority.address === means.address);
      const said = `No nameserver gave a transfer. The signed zone was walked name by name at ${plain(source?.server ?? means.address)}: ${means.names} names at serial ${means.serial}.`;
      if (!means.whole || !source) return { grade: 'partial', reasons: [said, ...means.problems.slice(0, 5)] };
      return againstOthers(authorities, source, means.serial, said);
    }
    case 'questions': {
      const source = authorities.find((authority) => authority.address === means.address);
      const { file } = means;
      const had = file?.from === undefined ? 'The zone file in hand' : `The zone as ${file.from} gave it`;
      if (file && source && file.differing === 0 && varying === 0 && file.serial === source.serial) {
        const said = `${had} has the serial that ${plain(source.server)} (${source.address}) serves, ${file.serial}, and all that was asked agrees with it.`;
        const against = againstOthers(authorities, source, source.serial, said);
        return { grade: against.grade === 'partial' ? 'partial' : 'likely whole', reasons: [...against.reasons, 'Only a transfer would prove it.'] };
      }
      if (!source) return { grade: 'partial', reasons: [] };
      return {
        grade: 'partial',
        reasons: [
          ...(file
            ? [
                file.serial === source.serial
                  ? `${had} has the serial that is served, and ${counted(file.differing, 'record set stands', 'record sets stand')} otherwise.`
                  : `${had} has serial ${file.serial}, served is ${source.serial ?? 'none'}.`,
              ]
            : []),
          `No nameserver gave a transfer. ${means.asked} questions were put to ${plain(source.server)}: names that are neither ${means.range ? 'addresses of the range' : 'common'} nor named by others were not found.`,
          ...means.remarks,
          'A transfer, a key for it, or an export of the zone would close what is open.',
        ],
      };
    }
  }
}

function againstOthers(authorities: readonly AuthorityAnswer[], source: AuthorityAnswer, serial: number | undefined, said: string): Coverage {
  const reasons = [said];
  const others = authorities.filter((authority) => authority !== source);
  const differing = others.filter((authority) => authority.serial !== undefined && authority.serial !== serial);
  const silent = others.filter((authority) => authority.serial === undefined);
  for (const authority of differing) reasons.push(`${plain(authority.server)} (${authority.address}) serves serial ${authority.serial}.`);
  for (const authority of silent) reasons.push(`${plain(authority.server)} (${authority.address}) did not answer: ${authority.problem ?? 'no reason known'}.`);
  if (differing.length > 0) return { grade: 'partial', reasons };
  return { grade: silent.length > 0 ? 'likely whole' : 'whole', reasons };
}
