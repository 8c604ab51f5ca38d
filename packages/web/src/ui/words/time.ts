/** Ticks as minutes, seconds and thousandths: 0:41.300. */
export function clockText(tick: number, ticksPerSecond: number, decimals = 3): string {
  // Rounded before it is taken apart, so that no minute has sixty seconds.
  const seconds = Number((tick / ticksPerSecond).toFixed(decimals));
  const minutes = Math.floor(seconds / 60);
  const rest = (seconds - minutes * 60).toFixed(decimals);
  return `${minutes}:${rest.padStart(decimals > 0 ? decimals + 3 : 2, '0')}`;
}

/** The tick that is meant by `1:23.5`, `83.5`, `83.5 s` or `tick 5010`; null where none is. */
export function tickOfText(text: string, ticksPerSecond: number): number | null {
  const plain = text.trim().toLowerCase();
  const tick = /^tick\s*(\d+)$/.exec(plain);
  if (tick) return Number(tick[1]);
  const time = /^(?:(\d+):)?(\d+(?:\.\d*)?)\s*s?$/.exec(plain);
  if (!time) return null;
  const [, minutes = '0', seconds] = time;
  return Math.round((Number(minutes) * 60 + Number(seconds)) * ticksPerSecond);
}

/** How long ago, in the largest unit that fits: 12 s, 4 min, 3 h, or the day. */
export function agoText(at: string, now: number): string {
  const seconds = Math.max(0, Math.round((now - Date.parse(at)) / 1000));
  if (seconds < 60) return `${seconds} s ago`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ago`;
  if (seconds < 86_400) return `${Math.floor(seconds / 3600)} h ago`;
  return `on ${new Date(at).toISOString().slice(0, 10)}`;
}

/** The time of day, as people here write it; before today with the day. */
export function timeText(at: string, now = new Date()): string {
  const date = new Date(at);
  const isToday = date.toDateString() === now.toDateString();
  return isToday
    ? `at ${date.toLocaleTimeString('en-GB')}`
    : `on ${date.toLocaleDateString('en-CA')} at ${date.toLocaleTimeString('en-GB')}`;
}
