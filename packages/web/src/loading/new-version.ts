import { reportFailure } from '../state/failures.ts';

/** The script that a page of the application begins with; its name changes with every build. */
const ENTRY = /<script type="module"[^>]* src="([^"]+)"/;

/** Address of the script that the server has now; null where it does not say. */
async function entryOfServer(): Promise<string | null> {
  try {
    const response = await fetch('/', { cache: 'no-store' });
    const [, entry] = ENTRY.exec(response.ok ? await response.text() : '') ?? [];
    return entry === undefined ? null : new URL(entry, location.href).href;
  } catch {
    // The server is away; what needs it says so.
    return null;
  }
}

/** Says that the server has a newer version, where it has one. */
export async function tellOfNewVersion(): Promise<void> {
  const own = document.querySelector<HTMLScriptElement>('script[type="module"][src]')?.src;
  if (own === undefined) return;
  const entry = await entryOfServer();
  if (entry === null || entry === own) return;
  reportFailure({
    title:
      'The server has a newer version of Crooked Lantern, and some parts of this one are gone. What you wrote is kept over a reload.',
    report: `This page was loaded from ${own}.`,
    retry: { label: 'Reload', run: () => location.reload() },
  });
}
