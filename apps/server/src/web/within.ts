/** What is thrown when something took too long. */
const tookTooLong = (): Error => Object.assign(new Error('it took too long'), { code: 'ETIMEDOUT' });

/**
 * Waits for something at most so long, ms. What was begun goes on; nobody waits for it any more, and its failure is nobody's.
 * @param late makes what is thrown then.
 */
export function within<T>(ms: number, work: Promise<T>, late: () => Error = tookTooLong): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const timer = setTimeout(() => reject(late()), ms);
    work.then(
      (value) => {
        clearTimeout(timer);
        resolve(value);
      },
      (error: unknown) => {
        clearTimeout(timer);
        reject(error);
      },
    );
  });
}
