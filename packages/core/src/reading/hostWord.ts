import { isIpv4, isIpv6 } from '../dns/address';

const HOST = /^(?=.{4,253}\.?$)(?:[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.)+[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?\.?$/i;

/** True for a whole name of a host, with or without its final dot, and for no address. */
export const isHostWord = (word: string): boolean => HOST.test(word);

/** An address and nothing else. */
export const isAddressWord = (word: string): boolean => isIpv4(word) || isIpv6(word);

/** Characters of a line that is looked at word by word. */
const LONGEST = 1000;

/** True for a line that names an address or a host: it may say more than a heading does. */
export function namesAnything(text: string): boolean {
  return (
    text.length < LONGEST &&
    text.split(/[\s,;()]+/).some((word) => {
      const bare = word.replace(/[.:]$/, '');
      return isAddressWord(bare) || isHostWord(bare);
    })
  );
}
