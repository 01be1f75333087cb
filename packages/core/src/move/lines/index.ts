export * from './served';
export * from './remarks';
export * from './drift';
export * from './signed';
export * from './lowered';
export * from './runOut';
export * from './registration';
export * from './website';
