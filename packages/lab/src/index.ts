export * from './authZone';
export * from './dnsHost';
export * from './dressing';
export * from './lab';
export * from './labAuthority';
export * from './labClock';
export * from './resolver';
export * from './scenario';
