import { plain } from '../words';
import { Finder } from './finding';

/** Zones that stand below this one at the same servers without being delegated: a server answers from them, and a transfer of this zone does not show them. */
export const zonesBelow: Finder = ({ domain, below }) =>
  below.map(({ name, server, address }) => ({
    weight: 'look',
    code: 'zone-below',
    text: `${plain(name)} is a zone of its own at ${plain(server)} (${address}), which ${domain} does not delegate: its records are answered there and are no part of this zone. Survey it too, and build it at the new host or delegate it.`,
  }));
