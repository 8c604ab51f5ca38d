/** What commands print: their answer on standard output, findings and refusals on standard error. */

/** What an error of writing comes to: the code to end with, and what is said of it. Null for other errors. */
function outputTrouble(error: unknown): { code: number; words: string } | null {
  switch ((error as NodeJS.ErrnoException).code) {
    // Who reads has read enough, as `head` does.
    case 'EPIPE':
      return { code: 0, words: '' };
    case 'ENOSPC':
      return { code: 1, words: 'The output can’t be written: the disk is full.' };
    case 'EIO':
    case 'EFBIG':
      return {
        code: 1,
        words: `The output can’t be written: ${(error as Error).message}.`,
      };
    default:
      return null;
  }
}

/** Writes a text to standard output, and waits until it is taken. */
export function print(text: string): Promise<void> {
  return new Promise((resolve, reject) => {
    process.stdout.write(text, (error) => (error ? reject(error) : resolve()));
  });
}

/** A line on standard error. */
export function tell(line: string): void {
  process.stderr.write(`${line}\n`);
}

/** Ends the process with the code of a command; what goes wrong with the output is a sentence, or nothing to speak of. */
export async function endWith(command: Promise<number>): Promise<void> {
  try {
    process.exitCode = await command;
  } catch (error) {
    const trouble = outputTrouble(error);
    if (!trouble) throw error;
    if (trouble.words !== '') tell(trouble.words);
    process.exitCode = trouble.code;
  }
}
