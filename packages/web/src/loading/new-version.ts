import { reportFailure } from '../state/failures.ts';

/** The script that a page of the application begins with; its name changes with every build. */
const ENTRY = /<script type="module"[^>]* src="([^"]+)"/;

/** Whether the server has another build of the application than this page; null where it does not say. */
async function hasNewVersion(): Promise<boolean | null> {
  const own = document.querySelector<HTMLScriptElement>('script[type="module"][src]');
  if (!own) return null;
  try {
    const response = await fetch('/', { cache: 'no-store' });
    const [, entry] = ENTRY.exec(response.ok ? await response.text() : '') ?? [];
    return entry === undefined ? null : new URL(entry, location.href).href !== own.src;
  } catch {
    // The server is away; what needs it says so.
    return null;
  }
}

/** Says that the server has a newer version, where it has one. */
export async function tellOfNewVersion(): Promise<void> {
  if (!(await hasNewVersion())) return;
  reportFailure({
    title:
      'The server has a newer version of Crooked Lantern, and some parts of this one are gone. What you wrote is kept over a reload.',
    report: `This page was loaded from ${document.querySelector<HTMLScriptElement>('script[type="module"][src]')?.src}.`,
    retry: { label: 'Reload', run: () => location.reload() },
  });
}
