import { KnownStyle } from '@wanderon/core';
import { duration } from '../time';

/** What is known of the habits of a panel, in words; nothing of what nobody has said. */
export function styleWords({ names, apex, targetDot, text, longText, priority, ttls, leastTtl = 0, lacks = [] }: KnownStyle): string[] {
  return [
    names && (names === 'whole' ? 'names are typed whole' : 'names are typed below the domain'),
    apex && `the domain itself is ${apex === '@' ? '@' : apex === 'empty' ? 'an empty field' : 'typed whole'}`,
    targetDot && targetDot !== 'either' && `the dot at the end of a target is ${targetDot}`,
    text && `text ${text === 'bare' ? 'without quotes' : 'in quotes'}`,
    longText && `a long text ${longText === 'parts' ? 'in parts' : 'as one'}`,
    priority && (priority === 'own field' ? 'priority in a field of its own' : 'priority before the value'),
    ttls !== undefined && ttlWords(ttls, leastTtl),
    lacks.length > 0 && `no ${lacks.join(', ')}`,
  ].filter((words) => typeof words === 'string' && words !== '') as string[];
}

function ttlWords(ttls: readonly number[] | null, least: number): string {
  if (ttls === null) return 'no TTL can be given';
  if (ttls.length > 0) return `TTL ${ttls.map(duration).join(', ')}`;
  return least > 0 ? `any TTL from ${duration(least)} on` : 'any TTL';
}
