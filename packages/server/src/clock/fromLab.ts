const TRIES = 5;
const PAUSE = 500;

/** Asks the lab, again where it is too busy to take a connection. Throws an Error that says why it cannot be had. */
export async function fromLab(lab: string, path: string): Promise<unknown> {
  for (let tries = 1; ; tries++) {
    try {
      const response = await fetch(`${lab}${path}`);
      return await response.json();
    } catch (error) {
      if (tries < TRIES) {
        await new Promise((resolve) => setTimeout(resolve, PAUSE));
        continue;
      }
      const { message, cause } = error as Error;
      throw new Error(`The lab at ${lab} does not give ${path}: ${cause instanceof Error ? cause.message : message}`, { cause: error });
    }
  }
}
