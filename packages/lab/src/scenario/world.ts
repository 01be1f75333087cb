/** Fennel & Tide, the agency of the demo, and everybody around it. All invented, all under .example. */
export const START = Date.UTC(2027, 2, 12, 13, 5) / 1000;

/** TTL in seconds of delegations in the parent zone. */
export const DELEGATION_TTL = 21_600;

export const NIC = {
  zone: 'example.',
  servers: [
    { name: 'ns1.nic.example.', address: '192.0.2.11' },
    { name: 'ns2.nic.example.', address: '192.0.2.12' },
  ],
  lag: 240,
};
/** Where the registry tells about registrations (RFC 9082). */
export const RDAP = { name: 'rdap.nic.example', address: '192.0.2.20' };
export const ROOT = { name: 'root.lab.test.', address: '192.0.2.1' };

export interface Lookout {
  readonly name: string;
  readonly address: string;
  readonly habit: string;
}
