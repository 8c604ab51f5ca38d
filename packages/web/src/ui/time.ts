/** Ticks as minutes, seconds and thousandths: 0:41.300. */
export function clockText(tick: number, ticksPerSecond: number, decimals = 3): string {
  const seconds = tick / ticksPerSecond;
  const minutes = Math.floor(seconds / 60);
  const rest = (seconds - minutes * 60).toFixed(decimals);
  return `${minutes}:${rest.padStart(decimals > 0 ? decimals + 3 : 2, '0')}`;
}

/** How long ago, in the largest unit that fits: 12 s, 4 min, 3 h, or the day. */
export function agoText(at: string, now: number): string {
  const seconds = Math.max(0, Math.round((now - Date.parse(at)) / 1000));
  if (seconds < 60) return `${seconds} s ago`;
  if (seconds < 3600) return `${Math.floor(seconds / 60)} min ago`;
  if (seconds < 86_400) return `${Math.floor(seconds / 3600)} h ago`;
  return `on ${new Date(at).toISOString().slice(0, 10)}`;
}
