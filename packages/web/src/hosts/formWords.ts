import { RegistrarForm } from '@wanderon/core';

/** The habits of a registrar's page, in words. */
export function formWords({ entry, shown, least, most, dot, emptyFirst, apart, consent, confirm, warnings }: RegistrarForm): string[] {
  return [
    entry === 'list' ? 'names in one field, a line each' : `a field a name, ${shown} of them at first`,
    `${least} to ${most} names`,
    ...(dot === 'either' ? [] : [`the dot at the end is ${dot}`]),
    ...(emptyFirst ? ['old names have to go first'] : []),
    ...(apart ? ['sent on a further page'] : []),
    ...(consent ? ['asks for consent'] : []),
    ...(confirm === 'mail' ? ['writes to the owner before anything changes'] : confirm === 'identity' ? ['asks the owner to prove who he is'] : []),
    ...(warnings.length > 0 ? [`warns: ${warnings.join(', ')}`] : []),
  ];
}
