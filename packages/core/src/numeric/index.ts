export * from './trigonometry.ts';
export * from './random.ts';
export * from './state-hash.ts';
