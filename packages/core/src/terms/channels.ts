/** Parts of the body that one action at a time may use. Programs count them in this order. */
export const CHANNELS = ['legs', 'eyes', 'voice', 'arms'] as const;
export type Channel = (typeof CHANNELS)[number];
