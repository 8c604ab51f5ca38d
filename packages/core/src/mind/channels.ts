import type { Channel } from '../model/actions.ts';

/** The channels by their index in the cells; the runtime takes no values from the model. */
export const CHANNELS: readonly Channel[] = ['legs', 'eyes', 'voice', 'arms'];
