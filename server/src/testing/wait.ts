/** Asks again and again until the answer is there; the test's own time limit ends it. */
export async function until<T>(ask: () => T | undefined | false | Promise<T | undefined | false>): Promise<T> {
  for (;;) {
    const answer = await ask();
    if (answer !== undefined && answer !== false) return answer;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}
