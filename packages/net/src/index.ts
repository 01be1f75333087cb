export * from './client';
export * from './hasher';
export * from './netError';
export * from './rootHints';
export * from './routes';
export * from './transfer';
export * from './update';
export * from './walk';
