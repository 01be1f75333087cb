import { quotedText } from '../../dns/quotedText';
import { withSpfTerms } from '../../policy/spfText';
import { Ruling } from '../ruling';
import { Fix, fixedTo, rowAt } from '../fix';
import { Name } from '../../dns/name';
import { isIpv4 } from '../../dns/address';
import { inPrefix, parsePrefix } from '../../dns/prefix';
import { SpfTerm, readSpf } from '../../policy/spf';
import { movingNames } from '../leads';
import { Check, remark } from './check';
import { textsOf } from './textsAt';

/** SPF lets the address of a name send, and that name moves with the website: who sends from the old address is not let any more (RFC 7208 §5.3). */
export const spfMoves: Check = ({ rulings }) => {
  const moving = movingNames(rulings);
  if (moving.size === 0) return [];
  return rulings.flatMap((ruling) =>
    textsOf(ruling).flatMap((text) => {
      const terms = readSpf(text)?.terms ?? [];
      const names = terms.filter((term) => term.kind === 'mechanism' && term.name === 'a').map(({ value }) => nameOf(value, ruling.owner));
      const moved = names.find((name) => name !== undefined && moving.has(name) && !isNamed(terms, oldAddresses(rulings, name)));
      return moved
        ? [
            remark(
              ruling,
              'look',
              'spf-moves',
              `SPF lets the address of ${moved.replace(/\.$/, '')} send, and that moves with the website. If mail goes out from the old address, name that address.`,
              [naming(rulings, ruling, text, moved)],
            ),
          ]
        : [];
    }),
  );
};

function nameOf(value: string, owner: string): string | undefined {
  const name = value.replace(/\/.*$/s, '');
  if (name === '') return owner.toLowerCase();
  return name.includes('%')
    ? undefined
    : Name.tryParse(`${name.replace(/\.$/, '')}.`)
        ?.toString()
        .toLowerCase();
}

/** The SPF record that names the old addresses of the name which moves; undefined where they are not known. */
function naming(rulings: readonly Ruling[], ruling: Ruling, text: string, moved: string): Fix | undefined {
  const terms = oldAddresses(rulings, moved).map((address) => `${isIpv4(address) ? 'ip4' : 'ip6'}:${address}`);
  if (terms.length === 0) return undefined;
  const data = ruling.planned!.data.map((one, index) => (textsOf(ruling)[index] === text ? quotedText(withSpfTerms(text, terms)) : one));
  return { text: `Name the old address: ${terms.join(' ')}.`, rows: [fixedTo(rulings, ruling.owner, 'TXT', data)] };
}

function oldAddresses(rulings: readonly Ruling[], name: string): readonly string[] {
  return (['A', 'AAAA'] as const).flatMap((type) => rowAt(rulings, name, type)?.found?.data ?? []);
}

/** True where the record lets every one of the addresses send by itself, whatever a name leads to. RFC 7208 §5.6. */
function isNamed(terms: readonly SpfTerm[], addresses: readonly string[]): boolean {
  const ranges = terms.filter(({ name }) => name === 'ip4' || name === 'ip6').flatMap(({ value }) => parsePrefix(value) ?? []);
  return addresses.length > 0 && addresses.every((address) => ranges.some((range) => inPrefix(range, address)));
}
