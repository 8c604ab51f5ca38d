/** Puts text on the clipboard; false where the browser does not let the page. */
export async function copyText(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch (error) {
    console.warn('The browser does not let the page use the clipboard.', error);
    return false;
  }
}
