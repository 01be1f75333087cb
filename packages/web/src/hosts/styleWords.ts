import { EntryStyle } from '@wanderon/core';
import { duration } from '../time';

/** The habits of a panel, in words. */
export function styleWords({ names, apex, targetDot, text, longText, priority, ttls, leastTtl = 0, lacks = [] }: EntryStyle): string[] {
  return [
    names === 'whole' ? 'names are typed whole' : 'names are typed below the domain',
    `the domain itself is ${apex === '@' ? '@' : apex === 'empty' ? 'an empty field' : 'typed whole'}`,
    ...(targetDot === 'either' ? [] : [`the dot at the end of a target is ${targetDot}`]),
    `text ${text === 'bare' ? 'without quotes' : 'in quotes'}${longText === 'parts' ? ', a long one in parts' : ''}`,
    priority === 'own field' ? 'priority in a field of its own' : 'priority before the value',
    ttls === null
      ? 'no TTL can be given'
      : ttls.length === 0
        ? leastTtl > 0
          ? `any TTL from ${duration(leastTtl)} on`
          : 'any TTL'
        : `TTL ${ttls.map(duration).join(', ')}`,
    ...(lacks.length > 0 ? [`no ${lacks.join(', ')}`] : []),
  ];
}
