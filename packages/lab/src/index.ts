export * from './authZone';
export * from './dnsHost';
export * from './lab';
export * from './labClock';
export * from './resolver';
export * from './scenario';
