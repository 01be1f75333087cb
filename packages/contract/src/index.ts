export * from './clock';
export * from './hosts';
export * from './moves';
export * from './people';
export * from './problem';
export * from './sweeps';
